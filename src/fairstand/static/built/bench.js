var cu=!1,hu=!1,In=[],uu=-1,Ha=!1,Cu=!1;function xy(e){wy(e)}function vy(){Cu=!0}function Sy(){Cu=!1,Lp()}function wy(e){In.includes(e)||(In.push(e),e._x_schedulerPriority!==void 0&&(Ha=!0)),Lp()}function Pu(e){let t=In.indexOf(e);t!==-1&&t>uu&&In.splice(t,1)}function Lp(){if(!hu&&!cu){if(Cu)return;cu=!0,queueMicrotask(My)}}function My(){cu=!1,hu=!0;for(let e=0;e<In.length;e++)Ha&&by(e),In[e](),uu=e;In.length=0,uu=-1,Ha=!1,hu=!1}function by(e){let t=new Map,i=In.slice(e).sort((n,s)=>Ty(n,s,t));for(let n=0;n<i.length;n++)In[e+n]=i[n];Ha=!1}function Ty(e,t,i){return eu(e)?eu(t)?xp(e._x_schedulerPriority.el,i)-xp(t._x_schedulerPriority.el,i)||e._x_schedulerPriority.order-t._x_schedulerPriority.order:-1:eu(t)?1:0}function eu(e){return e._x_schedulerPriority!==void 0}function xp(e,t){if(t.has(e))return t.get(e);let i=0,n=e;for(;e;)i++,e._x_teleportBack?e=e._x_teleportBack:typeof ShadowRoot=="function"&&e.parentNode instanceof ShadowRoot?e=e.parentNode.host:e=e.parentElement;return t.set(n,i),i}var ar,Os,lr,Np,Ey=0,fu=!0;function Ay(e){fu=!1,e(),fu=!0}function Ry(e){ar=e.reactive,lr=e.release,Os=t=>e.effect(t,{scheduler:i=>{fu?xy(i):i()}}),Np=e.raw}function vp(e){Os=e}function Cy(e){let t=()=>{};return[(n,s)=>{let r=s?.priority==="structural"?Ey++:void 0,o=Os(n);return r!==void 0&&o!==void 0&&(o._x_schedulerPriority={el:e,order:r}),e._x_effects||(e._x_effects=new Set,e._x_runEffects=()=>{e._x_effects.forEach(a=>a())}),e._x_effects.add(o),t=()=>{o!==void 0&&(e._x_effects.delete(o),lr(o))},o},()=>{t()}]}function Dp(e,t){let i=!0,n,s,r=Os(()=>{let o=e(),a=JSON.stringify(o);if(!i&&(typeof o=="object"||o!==n)){let l=typeof n=="object"?JSON.parse(s):n;queueMicrotask(()=>{t(o,l)})}n=o,s=a,i=!1});return()=>{Pu(r),lr(r)}}async function Py(e){vy();try{await e(),await Promise.resolve()}finally{Sy()}}var Op=[],Up=[],Fp=[];function Iy(e){Fp.push(e)}function Iu(e,t){typeof t=="function"?(e._x_cleanups||(e._x_cleanups=[]),e._x_cleanups.push(t)):(t=e,Up.push(t))}function Bp(e){Op.push(e)}function kp(e,t,i){e._x_attributeCleanups||(e._x_attributeCleanups={}),e._x_attributeCleanups[t]||(e._x_attributeCleanups[t]=[]),e._x_attributeCleanups[t].push(i)}function zp(e,t){e._x_attributeCleanups&&Object.entries(e._x_attributeCleanups).forEach(([i,n])=>{(t===void 0||t.includes(i))&&(n.forEach(s=>s()),delete e._x_attributeCleanups[i])})}function Ly(e){for(e._x_effects?.forEach(Pu);e._x_cleanups?.length;)e._x_cleanups.pop()()}var Ya=new MutationObserver(Ka),Lu=!1;function Nu(){Ya.observe(document,{subtree:!0,childList:!0,attributes:!0,attributeOldValue:!0}),Lu=!0}function Hp(){Ny(),Ya.disconnect(),Lu=!1}var Ms=[];function Ny(){let e=Ya.takeRecords();Ms.push(()=>e.length>0&&Ka(e));let t=Ms.length;queueMicrotask(()=>{if(Ms.length===t)for(;Ms.length>0;)Ms.shift()()})}function Dy(){for(;Ms.length>0;)Ms.shift()();let e=Ya.takeRecords();e.length>0&&Ka(e)}function Ue(e){if(!Lu)return e();Hp();try{return e()}finally{Nu()}}var Du=!1,Va=[];function Oy(){Du=!0}function Uy(){Du=!1,Ka(Va),Va=[]}function Ka(e){if(Du){Va=Va.concat(e);return}let t=[],i=new Set,n=new Map,s=new Map;for(let r=0;r<e.length;r++)if(!e[r].target._x_ignoreMutationObserver&&(e[r].type==="childList"&&(e[r].removedNodes.forEach(o=>{o.nodeType===1&&o._x_marker&&i.add(o)}),e[r].addedNodes.forEach(o=>{if(o.nodeType===1){if(i.has(o)){i.delete(o);return}o._x_marker||t.push(o)}})),e[r].type==="attributes")){let o=e[r].target,a=e[r].attributeName,l=e[r].oldValue,c=()=>{n.has(o)||n.set(o,[]),n.get(o).push({name:a,value:o.getAttribute(a)})},h=()=>{s.has(o)||s.set(o,[]),s.get(o).push(a)};o.hasAttribute(a)&&l===null?c():o.hasAttribute(a)?(h(),c()):h()}s.forEach((r,o)=>{zp(o,r)}),n.forEach((r,o)=>{Op.forEach(a=>a(o,r))});for(let r of i)t.some(o=>o.contains(r))||Up.forEach(o=>o(r));for(let r of t)r.isConnected&&Fp.forEach(o=>o(r));t=null,i=null,n=null,s=null}function Vp(e){return Cs(or(e))}function Po(e,t,i){return e._x_dataStack=[t,...or(i||e)],()=>{e._x_dataStack=e._x_dataStack.filter(n=>n!==t)}}function or(e){return e._x_dataStack?e._x_dataStack:typeof ShadowRoot=="function"&&e instanceof ShadowRoot?or(e.host):e.parentNode?or(e.parentNode):[]}function Cs(e){return new Proxy({objects:e},Fy)}function Gp(e,t){return e===null||e===Object.prototype?null:Object.prototype.hasOwnProperty.call(e,t)?e:Gp(Object.getPrototypeOf(e),t)}var Fy={ownKeys({objects:e}){return Array.from(new Set(e.flatMap(t=>Object.keys(t))))},has({objects:e},t){return t==Symbol.unscopables?!1:e.some(i=>Object.prototype.hasOwnProperty.call(i,t)||Reflect.has(i,t))},get({objects:e},t,i){return t=="toJSON"?By:Reflect.get(e.find(n=>Reflect.has(n,t))||{},t,i)},set({objects:e},t,i,n){let s;for(let o of e)if(s=Gp(o,t),s)break;s||(s=e[e.length-1]);let r=Object.getOwnPropertyDescriptor(s,t);return r?.set&&r?.get?r.set.call(n,i)||!0:Reflect.set(s,t,i)}};function By(){return Reflect.ownKeys(this).reduce((t,i)=>(t[i]=Reflect.get(this,i),t),{})}function Ou(e,t=()=>{}){let i=s=>typeof s=="object"&&!Array.isArray(s)&&s!==null,n=(s,r="")=>{Object.entries(Object.getOwnPropertyDescriptors(s)).forEach(([o,{value:a,enumerable:l}])=>{if(l===!1||a===void 0||typeof a=="object"&&a!==null&&a.__v_skip)return;let c=r===""?o:`${r}.${o}`;typeof a=="object"&&a!==null&&a._x_interceptor?s[o]=a.initialize(e,c,o,t):i(a)&&a!==s&&!(a instanceof Element)&&n(a,c)})};return n(e)}function Wp(e,t=()=>{}){let i={initialValue:void 0,_x_interceptor:!0,initialize(n,s,r,o){return e(this.initialValue,()=>ky(n,s),a=>du(n,s,a),s,r,o)}};return t(i),n=>{if(typeof n=="object"&&n!==null&&n._x_interceptor){let s=i.initialize.bind(i);i.initialize=(r,o,a,l)=>{let c=n.initialize(r,o,a,l);return i.initialValue=c,s(r,o,a,l)}}else i.initialValue=n;return i}}function ky(e,t){return t.split(".").reduce((i,n)=>i[n],e)}function du(e,t,i){if(typeof t=="string"&&(t=t.split(".")),t.length===1)e[t[0]]=i;else{if(t.length===0)throw error;return e[t[0]]||(e[t[0]]={}),du(e[t[0]],t.slice(1),i)}}var Xp={};function tn(e,t){Xp[e]=t}function Ga(e,t){let i=zy(t);return Object.entries(Xp).forEach(([n,s])=>{Object.defineProperty(e,`$${n}`,{get(){return s(t,i)},enumerable:!1})}),e}function zy(e){let[t,i]=jp(e),n={interceptor:Wp,...t};return Iu(e,i),n}function Hy(e,t,i,...n){try{return i(...n)}catch(s){Za(s,e,t)}}function Za(...e){return $p(...e)}var $p=Gy;function Vy(e){$p=e}function Gy(e,t,i=void 0){e=Object.assign(e??{message:"No error message given."},{el:t,expression:i}),console.warn(`Alpine Expression Error: ${e.message}

${i?'Expression: "'+i+`"

`:""}`,t),setTimeout(()=>{throw e},0)}var Es=!0;function qp(e){let t=Es;Es=!1;let i=e();return Es=t,i}function As(e,t,i={}){let n;return _i(e,t)(s=>n=s,i),n}function _i(...e){return Yp(...e)}var Yp=()=>{};function Wy(e){Yp=e}var Kp;function Xy(e){Kp=e}function $y(e,t){return(i=()=>{},{scope:n={},params:s=[],context:r}={})=>{if(!Es){pu(i,t,Cs([n,...e]),s);return}let o=t.apply(Cs([n,...e]),s);pu(i,o)}}function pu(e,t,i,n,s){if(Es&&typeof t=="function"){let r=t.apply(i,n);r instanceof Promise?r.then(o=>pu(e,o,i,n)).catch(o=>Za(o,s,t)):e(r)}else typeof t=="object"&&t instanceof Promise?t.then(r=>e(r)):e(t)}function qy(...e){return Kp(...e)}var Uu="x-";function cr(e=""){return Uu+e}function Yy(e){Uu=e}var Wa={};function Fe(e,t){return Wa[e]=t,{before(i){if(!Wa[i]){console.warn(String.raw`Cannot find directive \`${i}\`. \`${e}\` will use the default order of execution`);return}let n=Ts.indexOf(i);Ts.splice(n>=0?n:Ts.indexOf("DEFAULT"),0,e)}}}function Ky(e){return Object.keys(Wa).includes(e)}function Ja(e,t,i){if(t=Array.from(t),e._x_virtualDirectives){let r=Object.entries(e._x_virtualDirectives).map(([a,l])=>({name:a,value:l})),o=Zp(r);r=r.map(a=>o.find(l=>l.name===a.name)?{name:`x-bind:${a.name}`,value:`"${a.value}"`}:a),t=t.concat(r)}let n={};return t.map(em((r,o)=>n[r]=o)).filter(nm).map(jy(n,i)).sort(Qy).map(r=>Jy(e,r))}function Zp(e){return Array.from(e).map(em()).filter(t=>!nm(t))}var mu=!1,xo=new Map,Jp=Symbol();function Zy(e){mu=!0;let t=Symbol();Jp=t,xo.set(t,[]);let i=()=>{for(;xo.get(t).length;)xo.get(t).shift()();xo.delete(t)},n=()=>{mu=!1,i()};e(i),n()}function jp(e){let t=[],i=a=>t.push(a),[n,s]=Cy(e);return t.push(s),[{Alpine:hr,effect:n,cleanup:i,evaluateLater:_i.bind(_i,e),evaluate:As.bind(As,e)},()=>t.forEach(a=>a())]}function Jy(e,t){let i=()=>{},n=Wa[t.type]||i,[s,r]=jp(e);kp(e,t.original,r);let o=()=>{e._x_ignore||e._x_ignoreSelf||(n.inline&&n.inline(e,t,s),n=n.bind(n,e,t,s),mu?xo.get(Jp).push(n):n())};return o.runCleanups=r,o}var Qp=(e,t)=>({name:i,value:n})=>(i.startsWith(e)&&(i=i.replace(e,t)),{name:i,value:n}),tm=e=>e;function em(e=()=>{}){return({name:t,value:i})=>{let{name:n,value:s}=im.reduce((r,o)=>o(r),{name:t,value:i});return n!==t&&e(n,t),{name:n,value:s}}}var im=[];function Fu(e){im.push(e)}function nm({name:e}){return sm().test(e)}var sm=()=>new RegExp(`^${Uu}([^:^.]+)\\b`);function jy(e,t){return({name:i,value:n})=>{i===n&&(n="");let s=i.match(sm()),r=i.match(/:([a-zA-Z0-9\-_:]+)/),o=i.match(/\.[^.\]]+(?=[^\]]*$)/g)||[],a=t||e[i]||i;return{type:s?s[1]:null,value:r?r[1]:null,modifiers:o.map(l=>l.replace(".","")),expression:n,original:a}}}var gu="DEFAULT",Ts=["ignore","ref","id","data","anchor","bind","init","for","model","modelable","transition","show","if",gu,"teleport"];function Qy(e,t){let i=Ts.indexOf(e.type)===-1?gu:e.type,n=Ts.indexOf(t.type)===-1?gu:t.type;return Ts.indexOf(i)-Ts.indexOf(n)}function Ps(e,t){if(typeof ShadowRoot=="function"&&e instanceof ShadowRoot){Array.from(e.children).forEach(s=>Ps(s,t));return}let i=!1;if(t(e,()=>i=!0),i)return;let n=e.firstElementChild;for(;n;)Ps(n,t,!1),n=n.nextElementSibling}var ts=!1;function Ln(e,t=()=>{}){return(...i)=>ts?t(...i):e(...i)}function tx(e){return(...t)=>ts&&e(...t)}var rm=[];function Io(e){rm.push(e)}function ex(e,t){rm.forEach(i=>i(e,t)),ts=!0,om(()=>{gn(t,(i,n)=>{n(i,()=>{})})}),ts=!1}var _u=!1;function ix(e,t){t._x_dataStack||(t._x_dataStack=e._x_dataStack),ts=!0,_u=!0,om(()=>{nx(t)}),ts=!1,_u=!1}function nx(e){let t=!1;gn(e,(n,s)=>{Ps(n,(r,o)=>{if(t&&cx(r))return o();t=!0,s(r,o)})})}function om(e){let t=Os;vp((i,n)=>{let s=t(i);return lr(s),()=>{}}),e(),vp(t)}var ja=0;function sx(e,t){let i=e._x_deferInit;i||(i=e._x_deferInit={pending:0,ownsIgnore:!e._x_ignore,queuedAttributes:new Map},i.ownsIgnore&&(e._x_ignore=!0),ja++),i.pending++,Promise.resolve(t).catch(n=>{try{Za(n,e)}catch(s){setTimeout(()=>{throw s},0)}}).then(()=>rx(e,i))}function rx(e,t){t.pending--,!(t.pending>0)&&(Dy(),!(t.pending>0)&&e._x_deferInit===t&&(delete e._x_deferInit,t.ownsIgnore&&delete e._x_ignore,ja--,e.isConnected&&(ax(t),gn(e))))}function ox(e,t){if(ja===0)return!1;let i=Xi(e,n=>n._x_deferInit);return i?(am(i._x_deferInit,e,t.map(({name:n})=>n)),!0):!1}function am(e,t,i){let n=e.queuedAttributes.get(t);(!n||n.marker!==t._x_marker)&&(n={marker:t._x_marker,names:new Set},e.queuedAttributes.set(t,n)),i.forEach(s=>n.names.add(s))}function ax(e){e.queuedAttributes.forEach((t,i)=>{if(!i.isConnected||!i._x_marker||i._x_marker!==t.marker)return;let n=Xi(i,r=>r._x_deferInit);if(n){am(n._x_deferInit,i,Array.from(t.names));return}let s=Array.from(t.names).filter(r=>i.hasAttribute(r)).map(r=>({name:r,value:i.getAttribute(r)}));s.length!==0&&Ja(i,s).forEach(r=>r())})}Io((e,t)=>{ja!==0&&(!e||e.nodeType!==1||!t||t.nodeType!==1||Xi(e,i=>i._x_deferInit)&&(t._x_ignore=!0))});function vo(e,t,i={},n={}){return e.dispatchEvent(new CustomEvent(t,{detail:i,bubbles:!0,composed:!0,cancelable:!0,...n}))}function mn(e,...t){console.warn(`Alpine Warning: ${e}`,...t)}var Sp=!1;function lx(){Sp&&mn("Alpine has already been initialized on this page. Calling Alpine.start() more than once can cause problems."),Sp=!0,document.body||mn("Unable to initialize. Trying to load Alpine before `<body>` is available. Did you forget to add `defer` in Alpine's `<script>` tag?"),vo(document,"alpine:init"),vo(document,"alpine:initializing"),Nu(),Iy(t=>gn(t,Ps)),Iu(t=>Us(t)),Bp((t,i)=>{ox(t,i)||Ja(t,i).forEach(n=>n())});let e=t=>!Qa(t.parentElement,!0);Array.from(document.querySelectorAll(hm().join(","))).filter(e).forEach(t=>{gn(t)}),vo(document,"alpine:initialized"),setTimeout(()=>{fx()})}var Bu=[],lm=[];function cm(){return Bu.map(e=>e())}function hm(){return Bu.concat(lm).map(e=>e())}function um(e){Bu.push(e)}function fm(e){lm.push(e)}function Qa(e,t=!1){return Xi(e,i=>{if((t?hm():cm()).some(s=>i.matches(s)))return!0})}function Xi(e,t){if(e){if(t(e))return e;if(e._x_teleportBack)return Xi(e._x_teleportBack,t);if(e.parentNode instanceof ShadowRoot)return Xi(e.parentNode.host,t);if(e.parentElement)return Xi(e.parentElement,t)}}function cx(e){return cm().some(t=>e.matches(t))}var dm=[];function hx(e){dm.push(e)}var ux=1;function gn(e,t=Ps,i=()=>{}){Xi(e,n=>n._x_ignore)||Zy(()=>{t(e,(n,s)=>{n._x_marker||(i(n,s),dm.forEach(r=>r(n,s)),Ja(n,n.attributes).forEach(r=>r()),n._x_ignore||(n._x_marker=ux++),n._x_ignore&&s())})})}function Us(e,t=Ps){t(e,i=>{Ly(i),zp(i),delete i._x_marker})}function fx(){[["ui","dialog",["[x-dialog], [x-popover]"]],["anchor","anchor",["[x-anchor]"]],["sort","sort",["[x-sort]"]]].forEach(([t,i,n])=>{Ky(i)||n.some(s=>{if(document.querySelector(s))return mn(`found "${s}", but missing ${t} plugin`),!0})})}var yu=[],ku=!1;function zu(e=()=>{}){return queueMicrotask(()=>{ku||setTimeout(()=>{xu()})}),new Promise(t=>{yu.push(()=>{e(),t()})})}function xu(){for(ku=!1;yu.length;)yu.shift()()}function dx(){ku=!0}function Hu(e,t){return Array.isArray(t)?wp(e,t.join(" ")):typeof t=="object"&&t!==null?px(e,t):typeof t=="function"?Hu(e,t()):wp(e,t)}function vu(e){return e.split(/\s/).filter(Boolean)}function wp(e,t){let i=s=>vu(s).filter(r=>!e.classList.contains(r)).filter(Boolean),n=s=>(e.classList.add(...s),()=>{e.classList.remove(...s)});return t=t===!0?t="":t||"",n(i(t))}function px(e,t){let i=Object.entries(t).flatMap(([o,a])=>a?vu(o):!1).filter(Boolean),n=Object.entries(t).flatMap(([o,a])=>a?!1:vu(o)).filter(Boolean),s=[],r=[];return n.forEach(o=>{e.classList.contains(o)&&(e.classList.remove(o),r.push(o))}),i.forEach(o=>{e.classList.contains(o)||(e.classList.add(o),s.push(o))}),()=>{r.forEach(o=>e.classList.add(o)),s.forEach(o=>e.classList.remove(o))}}function tl(e,t){return typeof t=="object"&&t!==null?mx(e,t):gx(e,t)}function mx(e,t){let i={};return Object.entries(t).forEach(([n,s])=>{i[n]=e.style[n],n.startsWith("--")||(n=_x(n)),e.style.setProperty(n,s)}),setTimeout(()=>{e.style.length===0&&e.removeAttribute("style")}),()=>{tl(e,i)}}function gx(e,t){let i=e.getAttribute("style",t);return e.setAttribute("style",t),()=>{e.setAttribute("style",i||"")}}function _x(e){return e.replace(/([a-z])([A-Z])/g,"$1-$2").toLowerCase()}function Su(e,t=()=>{}){let i=!1;return function(){i?t.apply(this,arguments):(i=!0,e.apply(this,arguments))}}Fe("transition",(e,{value:t,modifiers:i,expression:n},{evaluate:s})=>{typeof n=="function"&&(n=s(n)),n!==!1&&(!n||typeof n=="boolean"?xx(e,i,t):yx(e,n,t))});function yx(e,t,i){pm(e,Hu,""),{enter:s=>{e._x_transition.enter.during=s},"enter-start":s=>{e._x_transition.enter.start=s},"enter-end":s=>{e._x_transition.enter.end=s},leave:s=>{e._x_transition.leave.during=s},"leave-start":s=>{e._x_transition.leave.start=s},"leave-end":s=>{e._x_transition.leave.end=s}}[i](t)}function xx(e,t,i){pm(e,tl);let n=!t.includes("in")&&!t.includes("out")&&!i,s=n||t.includes("in")||["enter"].includes(i),r=n||t.includes("out")||["leave"].includes(i);t.includes("in")&&!n&&(t=t.filter((m,y)=>y<t.indexOf("out"))),t.includes("out")&&!n&&(t=t.filter((m,y)=>y>t.indexOf("out")));let o=!t.includes("opacity")&&!t.includes("scale"),a=o||t.includes("opacity"),l=o||t.includes("scale"),c=a?0:1,h=l?_o(t,"scale",95)/100:1,u=_o(t,"delay",0)/1e3,f=_o(t,"origin","center"),d="opacity, transform",g=_o(t,"duration",150)/1e3,x=_o(t,"duration",75)/1e3,p="cubic-bezier(0.4, 0.0, 0.2, 1)";s&&(e._x_transition.enter.during={transformOrigin:f,transitionDelay:`${u}s`,transitionProperty:d,transitionDuration:`${g}s`,transitionTimingFunction:p},e._x_transition.enter.start={opacity:c,transform:`scale(${h})`},e._x_transition.enter.end={opacity:1,transform:"scale(1)"}),r&&(e._x_transition.leave.during={transformOrigin:f,transitionDelay:`${u}s`,transitionProperty:d,transitionDuration:`${x}s`,transitionTimingFunction:p},e._x_transition.leave.start={opacity:1,transform:"scale(1)"},e._x_transition.leave.end={opacity:c,transform:`scale(${h})`})}function pm(e,t,i={}){e._x_transition||(e._x_transition={enter:{during:i,start:i,end:i},leave:{during:i,start:i,end:i},in(n=()=>{},s=()=>{}){wu(e,t,{during:this.enter.during,start:this.enter.start,end:this.enter.end},n,s)},out(n=()=>{},s=()=>{}){wu(e,t,{during:this.leave.during,start:this.leave.start,end:this.leave.end},n,s)}})}window.Element.prototype._x_toggleAndCascadeWithTransitions=function(e,t,i,n){let s=document.visibilityState==="visible"?requestAnimationFrame:setTimeout,r=()=>s(i);if(t){e._x_transition&&(e._x_transition.enter||e._x_transition.leave)?e._x_transition.enter&&(Object.entries(e._x_transition.enter.during).length||Object.entries(e._x_transition.enter.start).length||Object.entries(e._x_transition.enter.end).length)?e._x_transition.in(i):r():e._x_transition?e._x_transition.in(i):r();return}e._x_hidePromise=e._x_transition?new Promise((o,a)=>{e._x_transition.out(()=>{},()=>o(n)),e._x_transitioning&&e._x_transitioning.beforeCancel(()=>a({isFromCancelledTransition:!0}))}):Promise.resolve(n),queueMicrotask(()=>{let o=mm(e);o?(o._x_hideChildren||(o._x_hideChildren=[]),o._x_hideChildren.push(e)):s(()=>{let a=l=>{let c=Promise.all([l._x_hidePromise,...(l._x_hideChildren||[]).map(a)]).then(([h])=>h?.());return delete l._x_hidePromise,delete l._x_hideChildren,c};a(e).catch(l=>{if(!l.isFromCancelledTransition)throw l})})})};function mm(e){let t=e.parentNode;if(t)return t._x_hidePromise?t:mm(t)}function wu(e,t,{during:i,start:n,end:s}={},r=()=>{},o=()=>{}){if(e._x_transitioning&&e._x_transitioning.cancel(),Object.keys(i).length===0&&Object.keys(n).length===0&&Object.keys(s).length===0){r(),o();return}let a,l,c;vx(e,{start(){a=t(e,n)},during(){l=t(e,i)},before:r,end(){a(),c=t(e,s)},after:o,cleanup(){l(),c()}})}function vx(e,t){let i,n,s,r=Su(()=>{Ue(()=>{i=!0,n||t.before(),s||(t.end(),xu()),t.after(),e.isConnected&&t.cleanup(),delete e._x_transitioning})});e._x_transitioning={beforeCancels:[],beforeCancel(o){this.beforeCancels.push(o)},cancel:Su(function(){for(;this.beforeCancels.length;)this.beforeCancels.shift()();r()}),finish:r},Ue(()=>{t.start(),t.during()}),dx(),requestAnimationFrame(()=>{if(i)return;let o=Number(getComputedStyle(e).transitionDuration.replace(/,.*/,"").replace("s",""))*1e3,a=Number(getComputedStyle(e).transitionDelay.replace(/,.*/,"").replace("s",""))*1e3;o===0&&(o=Number(getComputedStyle(e).animationDuration.replace("s",""))*1e3),Ue(()=>{t.before()}),n=!0,requestAnimationFrame(()=>{i||(Ue(()=>{t.end()}),xu(),setTimeout(e._x_transitioning.finish,o+a),s=!0)})})}function _o(e,t,i){if(e.indexOf(t)===-1)return i;let n=e[e.indexOf(t)+1];if(!n||t==="scale"&&isNaN(n))return i;if(t==="duration"||t==="delay"){let s=n.match(/([0-9]+)ms/);if(s)return s[1]}return t==="origin"&&["top","right","left","center","bottom"].includes(e[e.indexOf(t)+2])?[n,e[e.indexOf(t)+2]].join(" "):n}function gm(e,t,i,n=[]){switch(e._x_bindings||(e._x_bindings=ar({})),e._x_bindings[t]=i,t=n.includes("camel")?Rx(t):t,t){case"value":Sx(e,i);break;case"style":Mx(e,i);break;case"class":wx(e,i);break;case"selected":case"checked":bx(e,t,i);break;default:Vu(e,t,i);break}}function Sx(e,t){if(Gu(e))e.attributes.value===void 0&&(e.value=t);else if(Xa(e))Number.isInteger(t)?e.value=t:!Array.isArray(t)&&typeof t!="boolean"&&![null,void 0].includes(t)?e.value=String(t):Array.isArray(t)?e.checked=t.some(i=>Cx(i,e.value)):e.checked=!!t;else if(e.tagName==="SELECT")Ax(e,t);else if(e.tagName==="OPTION")Vu(e,"value",t);else{if(e.value===t&&(typeof t!="object"||t===null))return;e.value=t===void 0?"":t}}function wx(e,t){e._x_undoAddedClasses&&e._x_undoAddedClasses(),e._x_undoAddedClasses=Hu(e,t)}function Mx(e,t){e._x_undoAddedStyles&&e._x_undoAddedStyles(),e._x_undoAddedStyles=tl(e,t)}function bx(e,t,i){Vu(e,t,i),Ex(e,t,i)}function Vu(e,t,i){[null,void 0,!1].includes(i)&&Ix(t)?e.removeAttribute(t):(_m(t)&&(i=t),Lx(i)&&(i=JSON.stringify(i)),Tx(e,t,i))}function Tx(e,t,i){e.getAttribute(t)!=i&&e.setAttribute(t,i)}function Ex(e,t,i){e[t]!==i&&(e[t]=i)}function Ax(e,t){let i=[].concat(t).map(n=>n+"");Array.from(e.options).forEach(n=>{n.selected=i.includes(n.value)})}function Rx(e){return e.toLowerCase().replace(/-(\w)/g,(t,i)=>i.toUpperCase())}function Cx(e,t){return e==t}function za(e){return[1,"1","true","on","yes",!0].includes(e)?!0:[0,"0","false","off","no",!1].includes(e)?!1:e?!!e:null}var Px=new Set(["allowfullscreen","async","autofocus","autoplay","checked","controls","default","defer","disabled","formnovalidate","inert","ismap","itemscope","loop","multiple","muted","nomodule","novalidate","open","playsinline","readonly","required","reversed","selected","shadowrootclonable","shadowrootdelegatesfocus","shadowrootserializable"]);function _m(e){return Px.has(e)}function Ix(e){return!["aria-pressed","aria-checked","aria-expanded","aria-selected"].includes(e)}function Lx(e){return typeof e=="object"&&e!==null}function Nx(e,t,i){return e._x_bindings&&e._x_bindings[t]!==void 0?e._x_bindings[t]:ym(e,t,i)}function Dx(e,t,i,n=!0){if(e._x_bindings&&e._x_bindings[t]!==void 0)return e._x_bindings[t];if(e._x_inlineBindings&&e._x_inlineBindings[t]!==void 0){let s=e._x_inlineBindings[t];return s.extract=n,qp(()=>As(e,s.expression))}return ym(e,t,i)}function ym(e,t,i){let n=e.getAttribute(t);return n===null?typeof i=="function"?i():i:n===""?!0:_m(t)?!![t,"true"].includes(n):n}function Xa(e){return e.type==="checkbox"||e.localName==="ui-checkbox"||e.localName==="ui-switch"}function Gu(e){return e.type==="radio"||e.localName==="ui-radio"}function xm(e,t){let i;return function(){let n=this,s=arguments,r=function(){i=null,e.apply(n,s)};clearTimeout(i),i=setTimeout(r,t)}}function vm(e,t){let i;return function(){let n=this,s=arguments;i||(e.apply(n,s),i=!0,setTimeout(()=>i=!1,t))}}function Sm({get:e,set:t},{get:i,set:n}){let s=!0,r,o,a=Os(()=>{let l=e(),c=i();if(s)n(iu(l)),s=!1;else{let h=JSON.stringify(l),u=JSON.stringify(c);h!==r?n(iu(l)):h!==u&&t(iu(c))}r=JSON.stringify(e()),o=JSON.stringify(i())});return()=>{Pu(a),lr(a)}}function iu(e){return typeof e=="object"?JSON.parse(JSON.stringify(e)):e}function Ox(e){(Array.isArray(e)?e:[e]).forEach(i=>i(hr))}var Pn={},Mp=!1;function Ux(e,t){if(Mp||(Pn=ar(Pn),Mp=!0),t===void 0)return Pn[e];Pn[e]=t,typeof t=="object"&&t!==null&&t._x_interceptor?Pn[e]=t.initialize(Pn,e,e,()=>{}):Ou(Pn[e]),typeof t=="object"&&t!==null&&t.hasOwnProperty("init")&&typeof t.init=="function"&&Pn[e].init()}function Fx(){return Pn}var wm={};function Bx(e,t){let i=typeof t!="function"?()=>t:t;return e instanceof Element?Mm(e,i()):(wm[e]=i,()=>{})}function kx(e){return Object.entries(wm).forEach(([t,i])=>{Object.defineProperty(e,t,{get(){return(...n)=>i(...n)}})}),e}function Mm(e,t,i){let n=[];for(;n.length;)n.pop()();let s=Object.entries(t).map(([o,a])=>({name:o,value:a})),r=Zp(s);return s=s.map(o=>r.find(a=>a.name===o.name)?{name:`x-bind:${o.name}`,value:`"${o.value}"`}:o),Ja(e,s,i).map(o=>{n.push(o.runCleanups),o()}),()=>{for(;n.length;)n.pop()()}}var bm={};function zx(e,t){bm[e]=t}function Hx(e,t){return Object.entries(bm).forEach(([i,n])=>{Object.defineProperty(e,i,{get(){return(...s)=>n.bind(t)(...s)},enumerable:!1})}),e}var Vx={get reactive(){return ar},get release(){return lr},get effect(){return Os},get raw(){return Np},get transaction(){return Py},version:"3.17.4",flushAndStopDeferringMutations:Uy,dontAutoEvaluateFunctions:qp,disableEffectScheduling:Ay,startObservingMutations:Nu,stopObservingMutations:Hp,setReactivityEngine:Ry,onAttributeRemoved:kp,onAttributesAdded:Bp,closestDataStack:or,skipDuringClone:Ln,onlyDuringClone:tx,addRootSelector:um,addInitSelector:fm,setErrorHandler:Vy,interceptClone:Io,addScopeToNode:Po,deferMutations:Oy,mapAttributes:Fu,evaluateLater:_i,interceptInit:hx,initInterceptors:Ou,injectMagics:Ga,setEvaluator:Wy,setRawEvaluator:Xy,mergeProxies:Cs,extractProp:Dx,findClosest:Xi,onElRemoved:Iu,closestRoot:Qa,destroyTree:Us,interceptor:Wp,transition:wu,setStyles:tl,mutateDom:Ue,deferInit:sx,directive:Fe,entangle:Sm,throttle:vm,debounce:xm,evaluate:As,evaluateRaw:qy,initTree:gn,nextTick:zu,prefixed:cr,prefix:Yy,plugin:Ox,magic:tn,store:Ux,start:lx,clone:ix,cloneNode:ex,bound:Nx,$data:Vp,watch:Dp,walk:Ps,data:zx,bind:Bx},hr=Vx,bp=new WeakMap,Tm=new Set;Object.getOwnPropertyNames(globalThis).forEach(e=>{if(e==="styleMedia"||e==="sharedStorage")return;let t;try{t=globalThis[e]}catch{return}Tm.add(t)});var Xe=class{constructor(e,t,i,n){this.type=e,this.value=t,this.start=i,this.end=n}},Gx=["IDENTIFIER","KEYWORD","BOOLEAN","NULL","UNDEFINED"],Wx=class{constructor(e){this.input=e,this.position=0,this.tokens=[]}tokenize(){for(;this.position<this.input.length&&(this.skipWhitespace(),!(this.position>=this.input.length));){let e=this.input[this.position];this.isDigit(e)?this.readNumber():this.isAlpha(e)||e==="_"||e==="$"?this.readIdentifierOrKeyword():e==='"'||e==="'"?this.readString():e==="/"&&this.peek()==="/"?this.skipLineComment():this.readOperatorOrPunctuation()}return this.tokens.push(new Xe("EOF",null,this.position,this.position)),this.tokens}skipWhitespace(){for(;this.position<this.input.length&&/\s/.test(this.input[this.position]);)this.position++}skipLineComment(){for(;this.position<this.input.length&&this.input[this.position]!==`
`;)this.position++}isDigit(e){return/[0-9]/.test(e)}isAlpha(e){return/[a-zA-Z]/.test(e)}isAlphaNumeric(e){return/[a-zA-Z0-9_$]/.test(e)}peek(e=1){return this.input[this.position+e]||""}readNumber(){let e=this.position,t=!1;for(;this.position<this.input.length;){let n=this.input[this.position];if(this.isDigit(n))this.position++;else if(n==="."&&!t)t=!0,this.position++;else break}let i=this.input.slice(e,this.position);this.tokens.push(new Xe("NUMBER",parseFloat(i),e,this.position))}readIdentifierOrKeyword(){let e=this.position;for(;this.position<this.input.length&&this.isAlphaNumeric(this.input[this.position]);)this.position++;let t=this.input.slice(e,this.position);["true","false","null","undefined","new","typeof","void","delete","in","instanceof"].includes(t)?t==="true"||t==="false"?this.tokens.push(new Xe("BOOLEAN",t==="true",e,this.position)):t==="null"?this.tokens.push(new Xe("NULL",null,e,this.position)):t==="undefined"?this.tokens.push(new Xe("UNDEFINED",void 0,e,this.position)):this.tokens.push(new Xe("KEYWORD",t,e,this.position)):this.tokens.push(new Xe("IDENTIFIER",t,e,this.position))}readString(){let e=this.position,t=this.input[this.position];this.position++;let i="",n=!1;for(;this.position<this.input.length;){let s=this.input[this.position];if(n){switch(s){case"n":i+=`
`;break;case"t":i+="	";break;case"r":i+="\r";break;case"\\":i+="\\";break;case t:i+=t;break;case"u":{let r=this.input.slice(this.position+1,this.position+5);/^[0-9a-fA-F]{4}$/.test(r)?(i+=String.fromCharCode(parseInt(r,16)),this.position+=4):i+=s;break}default:i+=s}n=!1}else if(s==="\\")n=!0;else if(s===t){this.position++,this.tokens.push(new Xe("STRING",i,e,this.position));return}else i+=s;this.position++}throw new Error(`Unterminated string starting at position ${e}`)}readOperatorOrPunctuation(){let e=this.position,t=this.input[this.position],i=this.peek(),n=this.peek(2);if(t==="="&&i==="="&&n==="=")this.position+=3,this.tokens.push(new Xe("OPERATOR","===",e,this.position));else if(t==="!"&&i==="="&&n==="=")this.position+=3,this.tokens.push(new Xe("OPERATOR","!==",e,this.position));else if(t==="="&&i==="=")this.position+=2,this.tokens.push(new Xe("OPERATOR","==",e,this.position));else if(t==="!"&&i==="=")this.position+=2,this.tokens.push(new Xe("OPERATOR","!=",e,this.position));else if(t==="<"&&i==="=")this.position+=2,this.tokens.push(new Xe("OPERATOR","<=",e,this.position));else if(t===">"&&i==="=")this.position+=2,this.tokens.push(new Xe("OPERATOR",">=",e,this.position));else if(t==="&"&&i==="&")this.position+=2,this.tokens.push(new Xe("OPERATOR","&&",e,this.position));else if(t==="|"&&i==="|")this.position+=2,this.tokens.push(new Xe("OPERATOR","||",e,this.position));else if(t==="+"&&i==="+")this.position+=2,this.tokens.push(new Xe("OPERATOR","++",e,this.position));else if(t==="-"&&i==="-")this.position+=2,this.tokens.push(new Xe("OPERATOR","--",e,this.position));else{this.position++;let s="()[]{},.;:?".includes(t)?"PUNCTUATION":"OPERATOR";this.tokens.push(new Xe(s,t,e,this.position))}}},Xx=class{constructor(e){this.tokens=e,this.position=0}parse(){if(this.isAtEnd())throw new Error("Empty expression");let e=this.parseExpression();if(this.match("PUNCTUATION",";"),!this.isAtEnd())throw new Error(`Unexpected token: ${this.current().value}`);return e}parseExpression(){return this.parseAssignment()}parseAssignment(){let e=this.parseTernary();if(this.match("OPERATOR","=")){let t=this.parseAssignment();if(e.type==="Identifier"||e.type==="MemberExpression")return{type:"AssignmentExpression",left:e,operator:"=",right:t};throw new Error("Invalid assignment target")}return e}parseTernary(){let e=this.parseLogicalOr();if(this.match("PUNCTUATION","?")){let t=this.parseExpression();this.consume("PUNCTUATION",":");let i=this.parseExpression();return{type:"ConditionalExpression",test:e,consequent:t,alternate:i}}return e}parseLogicalOr(){let e=this.parseLogicalAnd();for(;this.match("OPERATOR","||");){let t=this.previous().value,i=this.parseLogicalAnd();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseLogicalAnd(){let e=this.parseEquality();for(;this.match("OPERATOR","&&");){let t=this.previous().value,i=this.parseEquality();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseEquality(){let e=this.parseRelational();for(;this.match("OPERATOR","==","!=","===","!==");){let t=this.previous().value,i=this.parseRelational();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseRelational(){let e=this.parseAdditive();for(;this.match("OPERATOR","<",">","<=",">=");){let t=this.previous().value,i=this.parseAdditive();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseAdditive(){let e=this.parseMultiplicative();for(;this.match("OPERATOR","+","-");){let t=this.previous().value,i=this.parseMultiplicative();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseMultiplicative(){let e=this.parseUnary();for(;this.match("OPERATOR","*","/","%");){let t=this.previous().value,i=this.parseUnary();e={type:"BinaryExpression",operator:t,left:e,right:i}}return e}parseUnary(){if(this.match("OPERATOR","++","--")){let e=this.previous().value,t=this.parseUnary();return{type:"UpdateExpression",operator:e,argument:t,prefix:!0}}if(this.match("OPERATOR","!","-","+")){let e=this.previous().value,t=this.parseUnary();return{type:"UnaryExpression",operator:e,argument:t,prefix:!0}}return this.parsePostfix()}parsePostfix(){let e=this.parseMember();return this.match("OPERATOR","++","--")?{type:"UpdateExpression",operator:this.previous().value,argument:e,prefix:!1}:e}parseMember(){let e=this.parsePrimary();for(;;)if(this.match("PUNCTUATION",".")){let t=this.consumeIdentifierName();e={type:"MemberExpression",object:e,property:{type:"Identifier",name:t},computed:!1}}else if(this.match("PUNCTUATION","[")){let t=this.parseExpression();this.consume("PUNCTUATION","]"),e={type:"MemberExpression",object:e,property:t,computed:!0}}else if(this.match("PUNCTUATION","(")){let t=this.parseArguments();e={type:"CallExpression",callee:e,arguments:t}}else break;return e}parseArguments(){let e=[];if(!this.check("PUNCTUATION",")"))do e.push(this.parseExpression());while(this.match("PUNCTUATION",","));return this.consume("PUNCTUATION",")"),e}parsePrimary(){if(this.match("NUMBER"))return{type:"Literal",value:this.previous().value};if(this.match("STRING"))return{type:"Literal",value:this.previous().value};if(this.match("BOOLEAN"))return{type:"Literal",value:this.previous().value};if(this.match("NULL"))return{type:"Literal",value:null};if(this.match("UNDEFINED"))return{type:"Literal",value:void 0};if(this.match("IDENTIFIER"))return{type:"Identifier",name:this.previous().value};if(this.match("PUNCTUATION","(")){let e=this.parseExpression();return this.consume("PUNCTUATION",")"),e}if(this.match("PUNCTUATION","["))return this.parseArrayLiteral();if(this.match("PUNCTUATION","{"))return this.parseObjectLiteral();throw new Error(`Unexpected token: ${this.current().type} "${this.current().value}"`)}parseArrayLiteral(){let e=[];for(;!this.check("PUNCTUATION","]")&&!this.isAtEnd()&&(e.push(this.parseExpression()),this.match("PUNCTUATION",","));)if(this.check("PUNCTUATION","]"))break;return this.consume("PUNCTUATION","]"),{type:"ArrayExpression",elements:e}}parseObjectLiteral(){let e=[];for(;!this.check("PUNCTUATION","}")&&!this.isAtEnd();){let t,i=!1;if(this.match("STRING"))t={type:"Literal",value:this.previous().value};else if(this.checkIdentifierName())t={type:"Identifier",name:this.consumeIdentifierName()};else if(this.match("PUNCTUATION","["))t=this.parseExpression(),i=!0,this.consume("PUNCTUATION","]");else throw new Error("Expected property key");this.consume("PUNCTUATION",":");let n=this.parseExpression();if(e.push({type:"Property",key:t,value:n,computed:i,shorthand:!1}),this.match("PUNCTUATION",",")){if(this.check("PUNCTUATION","}"))break}else break}return this.consume("PUNCTUATION","}"),{type:"ObjectExpression",properties:e}}match(...e){for(let t=0;t<e.length;t++){let i=e[t];if(t===0&&e.length>1){let n=i;for(let s=1;s<e.length;s++)if(this.check(n,e[s]))return this.advance(),!0;return!1}else if(e.length===1)return this.checkType(i)?(this.advance(),!0):!1}return!1}check(e,t){return this.isAtEnd()?!1:t!==void 0?this.current().type===e&&this.current().value===t:this.current().type===e}checkType(e){return this.isAtEnd()?!1:this.current().type===e}advance(){return this.isAtEnd()||this.position++,this.previous()}isAtEnd(){return this.current().type==="EOF"}current(){return this.tokens[this.position]}previous(){return this.tokens[this.position-1]}consume(e,t){if(t!==void 0){if(this.check(e,t))return this.advance();throw new Error(`Expected ${e} "${t}" but got ${this.current().type} "${this.current().value}"`)}if(this.check(e))return this.advance();throw new Error(`Expected ${e} but got ${this.current().type} "${this.current().value}"`)}checkIdentifierName(){return this.isAtEnd()?!1:Gx.includes(this.current().type)}consumeIdentifierName(){if(!this.checkIdentifierName())throw new Error(`Expected an identifier name but got ${this.current().type} "${this.current().value}"`);let e=this.advance();switch(e.type){case"BOOLEAN":return e.value?"true":"false";case"NULL":return"null";case"UNDEFINED":return"undefined";default:return e.value}}},$x=class{evaluate({node:e,scope:t={},context:i=null,forceBindingRootScopeToFunctions:n=!0}){switch(e.type){case"Literal":return e.value;case"Identifier":if(e.name in t){let p=t[e.name];return this.checkForDangerousValues(p),typeof p=="function"?p.bind(t):p}throw new Error(`Undefined variable: ${e.name}`);case"MemberExpression":let s=this.evaluate({node:e.object,scope:t,context:i,forceBindingRootScopeToFunctions:n});if(s==null)throw new Error("Cannot read property of null or undefined");let r;e.computed?r=this.evaluate({node:e.property,scope:t,context:i,forceBindingRootScopeToFunctions:n}):r=e.property.name,this.checkForDangerousKeywords(r);let o=s[r];return this.checkForDangerousValues(o),typeof o=="function"?n?o.bind(t):o.bind(s):o;case"CallExpression":let a=e.arguments.map(p=>this.evaluate({node:p,scope:t,context:i,forceBindingRootScopeToFunctions:n})),l;if(e.callee.type==="MemberExpression"){let p=this.evaluate({node:e.callee.object,scope:t,context:i,forceBindingRootScopeToFunctions:n}),m;e.callee.computed?m=this.evaluate({node:e.callee.property,scope:t,context:i,forceBindingRootScopeToFunctions:n}):m=e.callee.property.name,this.checkForDangerousKeywords(m);let y=p[m];if(typeof y!="function")throw new Error("Value is not a function");l=y.apply(p,a)}else if(e.callee.type==="Identifier"){let p=e.callee.name,m;if(p in t)m=t[p];else throw new Error(`Undefined variable: ${p}`);if(typeof m!="function")throw new Error("Value is not a function");let y=i!==null?i:t;l=m.apply(y,a)}else{let p=this.evaluate({node:e.callee,scope:t,context:i,forceBindingRootScopeToFunctions:n});if(typeof p!="function")throw new Error("Value is not a function");l=p.apply(i,a)}return this.checkForDangerousValues(l),l;case"UnaryExpression":let c=this.evaluate({node:e.argument,scope:t,context:i,forceBindingRootScopeToFunctions:n});switch(e.operator){case"!":return!c;case"-":return-c;case"+":return+c;default:throw new Error(`Unknown unary operator: ${e.operator}`)}case"UpdateExpression":if(e.argument.type==="Identifier"){let p=e.argument.name;if(!(p in t))throw new Error(`Undefined variable: ${p}`);let m=t[p];return e.operator==="++"?t[p]=m+1:e.operator==="--"&&(t[p]=m-1),e.prefix?t[p]:m}else if(e.argument.type==="MemberExpression"){let p=this.evaluate({node:e.argument.object,scope:t,context:i,forceBindingRootScopeToFunctions:n}),m=e.argument.computed?this.evaluate({node:e.argument.property,scope:t,context:i,forceBindingRootScopeToFunctions:n}):e.argument.property.name;if(this.isDOMObject(p))throw new Error("Property assignments on DOM objects are prohibited in the CSP build");this.checkForDangerousKeywords(m);let y=p[m];return e.operator==="++"?p[m]=y+1:e.operator==="--"&&(p[m]=y-1),e.prefix?p[m]:y}throw new Error("Invalid update expression target");case"BinaryExpression":let h=this.evaluate({node:e.left,scope:t,context:i,forceBindingRootScopeToFunctions:n}),u=()=>this.evaluate({node:e.right,scope:t,context:i,forceBindingRootScopeToFunctions:n});if(e.operator==="&&")return h&&u();if(e.operator==="||")return h||u();let f=u();switch(e.operator){case"+":return h+f;case"-":return h-f;case"*":return h*f;case"/":return h/f;case"%":return h%f;case"==":return h==f;case"!=":return h!=f;case"===":return h===f;case"!==":return h!==f;case"<":return h<f;case">":return h>f;case"<=":return h<=f;case">=":return h>=f;default:throw new Error(`Unknown binary operator: ${e.operator}`)}case"ConditionalExpression":return this.evaluate({node:e.test,scope:t,context:i,forceBindingRootScopeToFunctions:n})?this.evaluate({node:e.consequent,scope:t,context:i,forceBindingRootScopeToFunctions:n}):this.evaluate({node:e.alternate,scope:t,context:i,forceBindingRootScopeToFunctions:n});case"AssignmentExpression":let g=this.evaluate({node:e.right,scope:t,context:i,forceBindingRootScopeToFunctions:n});if(e.left.type==="Identifier")return t[e.left.name]=g,g;if(e.left.type==="MemberExpression"){let p=this.evaluate({node:e.left.object,scope:t,context:i,forceBindingRootScopeToFunctions:n}),m=e.left.computed?this.evaluate({node:e.left.property,scope:t,context:i,forceBindingRootScopeToFunctions:n}):e.left.property.name;if(this.isDOMObject(p))throw new Error("Property assignments on DOM objects are prohibited in the CSP build");return this.checkForDangerousKeywords(m),p[m]=g,g}throw new Error("Invalid assignment target");case"ArrayExpression":return e.elements.map(p=>this.evaluate({node:p,scope:t,context:i,forceBindingRootScopeToFunctions:n}));case"ObjectExpression":let x={};for(let p of e.properties){let m=p.computed?this.evaluate({node:p.key,scope:t,context:i,forceBindingRootScopeToFunctions:n}):p.key.type==="Identifier"?p.key.name:this.evaluate({node:p.key,scope:t,context:i,forceBindingRootScopeToFunctions:n}),y=this.evaluate({node:p.value,scope:t,context:i,forceBindingRootScopeToFunctions:n});x[m]=y}return x;default:throw new Error(`Unknown node type: ${e.type}`)}}isDOMObject(e){if(e instanceof Node||typeof CSSStyleDeclaration<"u"&&e instanceof CSSStyleDeclaration||typeof DOMStringMap<"u"&&e instanceof DOMStringMap||typeof DOMTokenList<"u"&&e instanceof DOMTokenList||typeof NamedNodeMap<"u"&&e instanceof NamedNodeMap)return!0;let t=e!=null&&e.constructor;return!!(t&&typeof t.name=="string"&&/^(SVG|CSS|DOM)[A-Z]/.test(t.name))}checkForDangerousKeywords(e){if(["constructor","prototype","__proto__","__defineGetter__","__defineSetter__","insertAdjacentHTML","insertAdjacentElement","insertAdjacentText","setAttribute","setAttributeNS","setAttributeNode","setAttributeNodeNS","createElement","createElementNS","createDocumentFragment","createContextualFragment","appendChild","insertBefore","replaceChild"].includes(e))throw new Error(`Accessing "${e}" is prohibited in the CSP build`)}checkForDangerousValues(e){if(e!==null&&!(typeof e!="object"&&typeof e!="function")&&!bp.has(e)){if(e instanceof HTMLIFrameElement||e instanceof HTMLScriptElement||typeof SVGScriptElement<"u"&&e instanceof SVGScriptElement)throw new Error("Accessing iframes and scripts is prohibited in the CSP build");if(typeof Document<"u"&&e instanceof Document)throw new Error("Accessing document objects is prohibited in the CSP build");if(Tm.has(e))throw new Error("Accessing global variables is prohibited in the CSP build");return bp.set(e,!0),!0}}};function Em(e){try{let i=new Wx(e).tokenize(),s=new Xx(i).parse(),r=new $x;return function(o={}){let{scope:a={},context:l=null,forceBindingRootScopeToFunctions:c=!1}=o;return r.evaluate({node:s,scope:a,context:l,forceBindingRootScopeToFunctions:c})}}catch(t){throw new Error(`CSP Parser Error: ${t.message}`)}}function qx(e,t,i={}){let n=Am(e),s=Cs([i.scope??{},...n]),r=i.params??[],a=Em(t)({scope:s,forceBindingRootScopeToFunctions:!0});return typeof a=="function"&&Es?a.apply(s,r):a}function Yx(e,t){let i=Am(e);if(typeof t=="function")return $y(i,t);let n=Kx(e,t,i);return Hy.bind(null,e,t,n)}function Am(e){let t={};return Ga(t,e),[t,...or(e)]}function Kx(e,t,i){if(e instanceof HTMLIFrameElement)throw new Error("Evaluating expressions on an iframe is prohibited in the CSP build");if(e instanceof HTMLScriptElement)throw new Error("Evaluating expressions on a script is prohibited in the CSP build");return(n=()=>{},{scope:s={},params:r=[]}={})=>{let o=Cs([s,...i]),l=Em(t)({scope:o,forceBindingRootScopeToFunctions:!0});if(Es&&typeof l=="function"){let c=l.apply(l,r);c instanceof Promise?c.then(h=>n(h)):n(c)}else typeof l=="object"&&l instanceof Promise?l.then(c=>n(c)):n(l)}}function Rm(e){let t=Object.create(null);for(let i of e.split(","))t[i]=1;return i=>i in t}var r1=Object.freeze({}),o1=Object.freeze([]),To=Object.assign,Zx=Object.prototype.hasOwnProperty,Mu=(e,t)=>Zx.call(e,t),Eo=Array.isArray,So=e=>Cm(e)==="[object Map]",Jx=e=>typeof e=="string",Lo=e=>typeof e=="symbol",Ao=e=>e!==null&&typeof e=="object",jx=Object.prototype.toString,Cm=e=>jx.call(e),Pm=e=>Cm(e).slice(8,-1),Wu=e=>Jx(e)&&e!=="NaN"&&e[0]!=="-"&&""+parseInt(e,10)===e,el=e=>{let t=Object.create(null);return i=>t[i]||(t[i]=e(i))},Qx=/-\w/g,a1=el(e=>e.replace(Qx,t=>t.slice(1).toUpperCase())),tv=/\B([A-Z])/g,l1=el(e=>e.replace(tv,"-$1").toLowerCase()),Im=el(e=>e.charAt(0).toUpperCase()+e.slice(1)),c1=el(e=>e?`on${Im(e)}`:""),bs=(e,t)=>!Object.is(e,t),ev="itemscope,allowfullscreen,formnovalidate,ismap,nomodule,novalidate,readonly",h1=Rm(ev+",async,autofocus,autoplay,controls,default,defer,disabled,inert,loop,open,required,reversed,scoped,seamless,checked,muted,multiple,selected");function Is(e,...t){console.warn(`[Vue warn] ${e}`,...t)}var nu,fe,su=new WeakSet,Tp=class{constructor(e){this.fn=e,this.deps=void 0,this.depsTail=void 0,this.flags=5,this.next=void 0,this.cleanup=void 0,this.scheduler=void 0,nu&&(nu.active?nu.effects.push(this):this.flags&=-2)}pause(){this.flags|=64}resume(){this.flags&64&&(this.flags&=-65,su.has(this)&&(su.delete(this),this.trigger()))}notify(){this.flags&2&&!(this.flags&32)||this.flags&8||iv(this)}run(){if(!(this.flags&1))return this.fn();this.flags|=2,Ep(this),Nm(this);let e=fe,t=Qi;fe=this,Qi=!0;try{return this.fn()}finally{fe!==this&&Is("Active effect was not restored correctly - this is likely a Vue internal bug."),Dm(this),fe=e,Qi=t,this.flags&=-3}}stop(){if(this.flags&1){for(let e=this.deps;e;e=e.nextDep)qu(e);this.deps=this.depsTail=void 0,Ep(this),this.onStop&&this.onStop(),this.flags&=-2}}trigger(){this.flags&64?su.add(this):this.scheduler?this.scheduler():this.runIfDirty()}runIfDirty(){bu(this)&&this.run()}get dirty(){return bu(this)}},Lm=0,wo,Mo;function iv(e,t=!1){if(e.flags|=8,t){e.next=Mo,Mo=e;return}e.next=wo,wo=e}function Xu(){Lm++}function $u(){if(--Lm>0)return;if(Mo){let t=Mo;for(Mo=void 0;t;){let i=t.next;t.next=void 0,t.flags&=-9,t=i}}let e;for(;wo;){let t=wo;for(wo=void 0;t;){let i=t.next;if(t.next=void 0,t.flags&=-9,t.flags&1)try{t.trigger()}catch(n){e||(e=n)}t=i}}if(e)throw e}function Nm(e){for(let t=e.deps;t;t=t.nextDep)t.version=-1,t.prevActiveLink=t.dep.activeLink,t.dep.activeLink=t}function Dm(e){let t,i=e.depsTail,n=i;for(;n;){let s=n.prevDep;n.version===-1?(n===i&&(i=s),qu(n),sv(n)):t=n,n.dep.activeLink=n.prevActiveLink,n.prevActiveLink=void 0,n=s}e.deps=t,e.depsTail=i}function bu(e){for(let t=e.deps;t;t=t.nextDep)if(t.dep.version!==t.version||t.dep.computed&&(nv(t.dep.computed)||t.dep.version!==t.version))return!0;return!!e._dirty}function nv(e){if(e.flags&4&&!(e.flags&16)||(e.flags&=-17,e.globalVersion===$a)||(e.globalVersion=$a,!e.isSSR&&e.flags&128&&(!e.deps&&!e._dirty||!bu(e))))return;e.flags|=2;let t=e.dep,i=fe,n=Qi;fe=e,Qi=!0;try{Nm(e);let s=e.fn(e._value);(t.version===0||bs(s,e._value))&&(e.flags|=128,e._value=s,t.version++)}catch(s){throw t.version++,s}finally{fe=i,Qi=n,Dm(e),e.flags&=-3}}function qu(e,t=!1){let{dep:i,prevSub:n,nextSub:s}=e;if(n&&(n.nextSub=s,e.prevSub=void 0),s&&(s.prevSub=n,e.nextSub=void 0),i.subsHead===e&&(i.subsHead=s),i.subs===e&&(i.subs=n,!n&&i.computed)){i.computed.flags&=-5;for(let r=i.computed.deps;r;r=r.nextDep)qu(r,!0)}!t&&!--i.sc&&i.map&&i.map.delete(i.key)}function sv(e){let{prevDep:t,nextDep:i}=e;t&&(t.nextDep=i,e.prevDep=void 0),i&&(i.prevDep=t,e.nextDep=void 0)}function rv(e,t){e.effect instanceof Tp&&(e=e.effect.fn);let i=new Tp(e);t&&To(i,t);try{i.run()}catch(s){throw i.stop(),s}let n=i.run.bind(i);return n.effect=i,n}function ov(e){e.effect.stop()}var Qi=!0,Om=[];function av(){Om.push(Qi),Qi=!1}function lv(){let e=Om.pop();Qi=e===void 0?!0:e}function Ep(e){let{cleanup:t}=e;if(e.cleanup=void 0,t){let i=fe;fe=void 0;try{t()}finally{fe=i}}}var $a=0,cv=class{constructor(e,t){this.sub=e,this.dep=t,this.version=t.version,this.nextDep=this.prevDep=this.nextSub=this.prevSub=this.prevActiveLink=void 0}},hv=class{constructor(e){this.computed=e,this.version=0,this.activeLink=void 0,this.subs=void 0,this.map=void 0,this.key=void 0,this.sc=0,this.__v_skip=!0,this.subsHead=void 0}track(e){if(!fe||!Qi||fe===this.computed)return;let t=this.activeLink;if(t===void 0||t.sub!==fe)t=this.activeLink=new cv(fe,this),fe.deps?(t.prevDep=fe.depsTail,fe.depsTail.nextDep=t,fe.depsTail=t):fe.deps=fe.depsTail=t,Um(t);else if(t.version===-1&&(t.version=this.version,t.nextDep)){let i=t.nextDep;i.prevDep=t.prevDep,t.prevDep&&(t.prevDep.nextDep=i),t.prevDep=fe.depsTail,t.nextDep=void 0,fe.depsTail.nextDep=t,fe.depsTail=t,fe.deps===t&&(fe.deps=i)}return fe.onTrack&&fe.onTrack(To({effect:fe},e)),t}trigger(e){this.version++,$a++,this.notify(e)}notify(e){Xu();try{for(let t=this.subsHead;t;t=t.nextSub)t.sub.onTrigger&&!(t.sub.flags&8)&&t.sub.onTrigger(To({effect:t.sub},e));for(let t=this.subs;t;t=t.prevSub)t.sub.notify()&&t.sub.dep.notify()}finally{$u()}}};function Um(e){if(e.dep.sc++,e.sub.flags&4){let t=e.dep.computed;if(t&&!e.dep.subs){t.flags|=20;for(let n=t.deps;n;n=n.nextDep)Um(n)}let i=e.dep.subs;i!==e&&(e.prevSub=i,i&&(i.nextSub=e)),e.dep.subsHead===void 0&&(e.dep.subsHead=e),e.dep.subs=e}}var Tu=new WeakMap,Rs=Symbol("Object iterate"),Eu=Symbol("Map keys iterate"),Ro=Symbol("Array iterate");function bi(e,t,i){if(Qi&&fe){let n=Tu.get(e);n||Tu.set(e,n=new Map);let s=n.get(i);s||(n.set(i,s=new hv),s.map=n,s.key=i),s.track({target:e,type:t,key:i})}}function Qn(e,t,i,n,s,r){let o=Tu.get(e);if(!o){$a++;return}let a=l=>{l&&l.trigger({target:e,type:t,key:i,newValue:n,oldValue:s,oldTarget:r})};if(Xu(),t==="clear")o.forEach(a);else{let l=Eo(e),c=l&&Wu(i);if(l&&i==="length"){let h=Number(n);o.forEach((u,f)=>{(f==="length"||f===Ro||!Lo(f)&&f>=h)&&a(u)})}else switch((i!==void 0||o.has(void 0))&&a(o.get(i)),c&&a(o.get(Ro)),t){case"add":l?c&&a(o.get("length")):(a(o.get(Rs)),So(e)&&a(o.get(Eu)));break;case"delete":l||(a(o.get(Rs)),So(e)&&a(o.get(Eu)));break;case"set":So(e)&&a(o.get(Rs));break}}$u()}function sr(e){let t=me(e);return t===e?t:(bi(t,"iterate",Ro),Ns(e)?t:t.map(Ds))}function Yu(e){return bi(e=me(e),"iterate",Ro),e}function pn(e,t){return Ls(e)?Gm(e)?Co(Ds(t)):Co(t):Ds(t)}var uv={__proto__:null,[Symbol.iterator](){return ru(this,Symbol.iterator,e=>pn(this,e))},concat(...e){return sr(this).concat(...e.map(t=>Eo(t)?sr(t):t))},entries(){return ru(this,"entries",e=>(e[1]=pn(this,e[1]),e))},every(e,t){return Cn(this,"every",e,t,void 0,arguments)},filter(e,t){return Cn(this,"filter",e,t,i=>i.map(n=>pn(this,n)),arguments)},find(e,t){return Cn(this,"find",e,t,i=>pn(this,i),arguments)},findIndex(e,t){return Cn(this,"findIndex",e,t,void 0,arguments)},findLast(e,t){return Cn(this,"findLast",e,t,i=>pn(this,i),arguments)},findLastIndex(e,t){return Cn(this,"findLastIndex",e,t,void 0,arguments)},forEach(e,t){return Cn(this,"forEach",e,t,void 0,arguments)},includes(...e){return ou(this,"includes",e)},indexOf(...e){return ou(this,"indexOf",e)},join(e){return sr(this).join(e)},lastIndexOf(...e){return ou(this,"lastIndexOf",e)},map(e,t){return Cn(this,"map",e,t,void 0,arguments)},pop(){return yo(this,"pop")},push(...e){return yo(this,"push",e)},reduce(e,...t){return Ap(this,"reduce",e,t)},reduceRight(e,...t){return Ap(this,"reduceRight",e,t)},shift(){return yo(this,"shift")},some(e,t){return Cn(this,"some",e,t,void 0,arguments)},splice(...e){return yo(this,"splice",e)},toReversed(){return sr(this).toReversed()},toSorted(e){return sr(this).toSorted(e)},toSpliced(...e){return sr(this).toSpliced(...e)},unshift(...e){return yo(this,"unshift",e)},values(){return ru(this,"values",e=>pn(this,e))}};function ru(e,t,i){let n=Yu(e),s=n[t]();return n!==e&&!Ns(e)&&(s._next=s.next,s.next=()=>{let r=s._next();return r.done||(r.value=i(r.value)),r}),s}var fv=Array.prototype;function Cn(e,t,i,n,s,r){let o=Yu(e),a=o!==e&&!Ns(e),l=o[t];if(l!==fv[t]){let u=l.apply(e,r);return a?Ds(u):u}let c=i;o!==e&&(a?c=function(u,f){return i.call(this,pn(e,u),f,e)}:i.length>2&&(c=function(u,f){return i.call(this,u,f,e)}));let h=l.call(o,c,n);return a&&s?s(h):h}function Ap(e,t,i,n){let s=Yu(e),r=s!==e&&!Ns(e),o=i,a=!1;s!==e&&(r?(a=n.length===0,o=function(c,h,u){return a&&(a=!1,c=pn(e,c)),i.call(this,c,pn(e,h),u,e)}):i.length>3&&(o=function(c,h,u){return i.call(this,c,h,u,e)}));let l=s[t](o,...n);return a?pn(e,l):l}function ou(e,t,i){let n=me(e);bi(n,"iterate",Ro);let s=n[t](...i);return(s===-1||s===!1)&&Ev(i[0])?(i[0]=me(i[0]),n[t](...i)):s}function yo(e,t,i=[]){av(),Xu();let n=me(e)[t].apply(e,i);return $u(),lv(),n}var dv=Rm("__proto__,__v_isRef,__isVue"),Fm=new Set(Object.getOwnPropertyNames(Symbol).filter(e=>e!=="arguments"&&e!=="caller").map(e=>Symbol[e]).filter(Lo));function pv(e){Lo(e)||(e=String(e));let t=me(this);return bi(t,"has",e),t.hasOwnProperty(e)}var Bm=class{constructor(e=!1,t=!1){this._isReadonly=e,this._isShallow=t}get(e,t,i){if(t==="__v_skip")return e.__v_skip;let n=this._isReadonly,s=this._isShallow;if(t==="__v_isReactive")return!n;if(t==="__v_isReadonly")return n;if(t==="__v_isShallow")return s;if(t==="__v_raw")return i===(n?s?bv:Hm:s?Mv:zm).get(e)||Object.getPrototypeOf(e)===Object.getPrototypeOf(i)?e:void 0;let r=Eo(e);if(!n){let a;if(r&&(a=uv[t]))return a;if(t==="hasOwnProperty")return pv}let o=Reflect.get(e,t,bo(e)?e:i);if((Lo(t)?Fm.has(t):dv(t))||(n||bi(e,"get",t),s))return o;if(bo(o)){let a=r&&Wu(t)?o:o.value;return n&&Ao(a)?Ru(a):a}return Ao(o)?n?Ru(o):Ku(o):o}},mv=class extends Bm{constructor(e=!1){super(!1,e)}set(e,t,i,n){let s=e[t],r=Eo(e)&&Wu(t);if(!this._isShallow){let l=Ls(s);if(!Ns(i)&&!Ls(i)&&(s=me(s),i=me(i)),!r&&bo(s)&&!bo(i))return l?(Is(`Set operation on key "${String(t)}" failed: target is readonly.`,e[t]),!0):(s.value=i,!0)}let o=r?Number(t)<e.length:Mu(e,t),a=Reflect.set(e,t,i,bo(e)?e:n);return e===me(n)&&a&&(o?bs(i,s)&&Qn(e,"set",t,i,s):Qn(e,"add",t,i)),a}deleteProperty(e,t){let i=Mu(e,t),n=e[t],s=Reflect.deleteProperty(e,t);return s&&i&&Qn(e,"delete",t,void 0,n),s}has(e,t){let i=Reflect.has(e,t);return(!Lo(t)||!Fm.has(t))&&bi(e,"has",t),i}ownKeys(e){return bi(e,"iterate",Eo(e)?"length":Rs),Reflect.ownKeys(e)}},gv=class extends Bm{constructor(e=!1){super(!0,e)}set(e,t){return Is(`Set operation on key "${String(t)}" failed: target is readonly.`,e),!0}deleteProperty(e,t){return Is(`Delete operation on key "${String(t)}" failed: target is readonly.`,e),!0}},_v=new mv,yv=new gv,Au=e=>e,Fa=e=>Reflect.getPrototypeOf(e);function xv(e,t,i){return function(...n){let s=this.__v_raw,r=me(s),o=So(r),a=e==="entries"||e===Symbol.iterator&&o,l=e==="keys"&&o,c=s[e](...n),h=i?Au:t?Co:Ds;return!t&&bi(r,"iterate",l?Eu:Rs),To(Object.create(c),{next(){let{value:u,done:f}=c.next();return f?{value:u,done:f}:{value:a?[h(u[0]),h(u[1])]:h(u),done:f}}})}}function Ba(e){return function(...t){{let i=t[0]?`on key "${t[0]}" `:"";Is(`${Im(e)} operation ${i}failed: target is readonly.`,me(this))}return e==="delete"?!1:e==="clear"?void 0:this}}function vv(e,t){let i={get(s){let r=this.__v_raw,o=me(r),a=me(s);e||(bs(s,a)&&bi(o,"get",s),bi(o,"get",a));let{has:l}=Fa(o),c=t?Au:e?Co:Ds;if(l.call(o,s))return c(r.get(s));if(l.call(o,a))return c(r.get(a));r!==o&&r.get(s)},get size(){let s=this.__v_raw;return!e&&bi(me(s),"iterate",Rs),s.size},has(s){let r=this.__v_raw,o=me(r),a=me(s);return e||(bs(s,a)&&bi(o,"has",s),bi(o,"has",a)),s===a?r.has(s):r.has(s)||r.has(a)},forEach(s,r){let o=this,a=o.__v_raw,l=me(a),c=t?Au:e?Co:Ds;return!e&&bi(l,"iterate",Rs),a.forEach((h,u)=>s.call(r,c(h),c(u),o))}};return To(i,e?{add:Ba("add"),set:Ba("set"),delete:Ba("delete"),clear:Ba("clear")}:{add(s){let r=me(this),o=Fa(r),a=me(s),l=!t&&!Ns(s)&&!Ls(s)?a:s;return o.has.call(r,l)||bs(s,l)&&o.has.call(r,s)||bs(a,l)&&o.has.call(r,a)||(r.add(l),Qn(r,"add",l,l)),this},set(s,r){!t&&!Ns(r)&&!Ls(r)&&(r=me(r));let o=me(this),{has:a,get:l}=Fa(o),c=a.call(o,s);c?Rp(o,a,s):(s=me(s),c=a.call(o,s));let h=l.call(o,s);return o.set(s,r),c?bs(r,h)&&Qn(o,"set",s,r,h):Qn(o,"add",s,r),this},delete(s){let r=me(this),{has:o,get:a}=Fa(r),l=o.call(r,s);l?Rp(r,o,s):(s=me(s),l=o.call(r,s));let c=a?a.call(r,s):void 0,h=r.delete(s);return l&&Qn(r,"delete",s,void 0,c),h},clear(){let s=me(this),r=s.size!==0,o=So(s)?new Map(s):new Set(s),a=s.clear();return r&&Qn(s,"clear",void 0,void 0,o),a}}),["keys","values","entries",Symbol.iterator].forEach(s=>{i[s]=xv(s,e,t)}),i}function km(e,t){let i=vv(e,t);return(n,s,r)=>s==="__v_isReactive"?!e:s==="__v_isReadonly"?e:s==="__v_raw"?n:Reflect.get(Mu(i,s)&&s in n?i:n,s,r)}var Sv={get:km(!1,!1)},wv={get:km(!0,!1)};function Rp(e,t,i){let n=me(i);if(n!==i&&t.call(e,n)){let s=Pm(e);Is(`Reactive ${s} contains both the raw and reactive versions of the same object${s==="Map"?" as keys":""}, which can lead to inconsistencies. Avoid differentiating between the raw and reactive versions of an object and only use the reactive version if possible.`)}}var zm=new WeakMap,Mv=new WeakMap,Hm=new WeakMap,bv=new WeakMap;function Tv(e){switch(e){case"Object":case"Array":return 1;case"Map":case"Set":case"WeakMap":case"WeakSet":return 2;default:return 0}}function Ku(e){return Ls(e)?e:Vm(e,!1,_v,Sv,zm)}function Ru(e){return Vm(e,!0,yv,wv,Hm)}function Vm(e,t,i,n,s){if(!Ao(e))return Is(`value cannot be made ${t?"readonly":"reactive"}: ${String(e)}`),e;if(e.__v_raw&&!(t&&e.__v_isReactive)||e.__v_skip||!Object.isExtensible(e))return e;let r=s.get(e);if(r)return r;let o=Tv(Pm(e));if(o===0)return e;let a=new Proxy(e,o===2?n:i);return s.set(e,a),a}function Gm(e){return Ls(e)?Gm(e.__v_raw):!!(e&&e.__v_isReactive)}function Ls(e){return!!(e&&e.__v_isReadonly)}function Ns(e){return!!(e&&e.__v_isShallow)}function Ev(e){return e?!!e.__v_raw:!1}function me(e){let t=e&&e.__v_raw;return t?me(t):e}var Ds=e=>Ao(e)?Ku(e):e,Co=e=>Ao(e)?Ru(e):e;function bo(e){return e?e.__v_isRef===!0:!1}tn("nextTick",()=>zu);tn("dispatch",e=>vo.bind(vo,e));tn("watch",(e,{evaluateLater:t,cleanup:i})=>(n,s)=>{let r=t(n),a=Dp(()=>{let l;return r(c=>l=c),l},s);i(a)});tn("store",Fx);tn("data",e=>Vp(e));tn("root",e=>Qa(e));tn("refs",e=>(e._x_refs_proxy||(e._x_refs_proxy=Cs(Av(e))),e._x_refs_proxy));function Av(e){let t=[];return Xi(e,i=>{i._x_refs&&t.push(i._x_refs)}),t}var au={};function Wm(e){return au[e]||(au[e]=0),++au[e]}function Rv(e,t){return Xi(e,i=>{if(i._x_ids&&i._x_ids[t])return!0})}function Cv(e,t){e._x_ids||(e._x_ids={}),e._x_ids[t]||(e._x_ids[t]=Wm(t))}tn("id",(e,{cleanup:t})=>(i,n=null)=>{let s=`${i}${n?`-${n}`:""}`;return Pv(e,s,t,()=>{let r=Rv(e,i),o=r?r._x_ids[i]:Wm(i);return n?`${i}-${o}-${n}`:`${i}-${o}`})});Io((e,t)=>{e._x_id&&(t._x_id=e._x_id)});function Pv(e,t,i,n){if(e._x_id||(e._x_id={}),e._x_id[t])return e._x_id[t];let s=n();return e._x_id[t]=s,i(()=>{delete e._x_id[t]}),s}tn("el",e=>e);Xm("Focus","focus","focus");Xm("Persist","persist","persist");function Xm(e,t,i){tn(t,n=>mn(`You can't use [$${t}] without first installing the "${e}" plugin here: https://alpinejs.dev/plugins/${i}`,n))}Fe("modelable",(e,{expression:t},{effect:i,evaluateLater:n,cleanup:s})=>{let r=n(t),o=()=>{let h;return r(u=>h=u),h},a=n(`${t} = __placeholder`),l=h=>a(()=>{},{scope:{__placeholder:h}}),c=o();l(c),queueMicrotask(()=>{if(!e._x_model)return;e._x_removeModelListeners.default();let h=e._x_model.get,u=e._x_model.setWithModifiers,f=Sm({get(){return h()},set(d){u(d)}},{get(){return o()},set(d){l(d)}});s(f)})});Fe("teleport",(e,{modifiers:t,expression:i},{cleanup:n})=>{e.tagName.toLowerCase()!=="template"&&mn("x-teleport can only be used on a <template> tag",e);let s=Cp(i),r=e.content.cloneNode(!0).firstElementChild;e._x_teleport=r,r._x_teleportBack=e,e.setAttribute("data-teleport-template",!0),r.setAttribute("data-teleport-target",!0),e._x_forwardEvents&&e._x_forwardEvents.forEach(a=>{r.addEventListener(a,l=>{l.stopPropagation(),e.dispatchEvent(new l.constructor(l.type,l))})}),Po(r,{},e);let o=(a,l,c)=>{c.includes("prepend")?l.parentNode.insertBefore(a,l):c.includes("append")?l.parentNode.insertBefore(a,l.nextSibling):l.appendChild(a)};Ue(()=>{Ln(()=>{o(r,s,t),gn(r)})()}),e._x_teleportPutBack=()=>{let a=Cp(i);Ue(()=>{o(e._x_teleport,a,t)})},n(()=>Ue(()=>{r.remove(),Us(r)}))});var Iv=document.createElement("div");function Cp(e){let t=Ln(()=>document.querySelector(e),()=>Iv)();return t||mn(`Cannot find x-teleport element for selector: "${e}"`),t}var $m=()=>{};$m.inline=(e,{modifiers:t},{cleanup:i})=>{t.includes("self")?e._x_ignoreSelf=!0:e._x_ignore=!0,i(()=>{t.includes("self")?delete e._x_ignoreSelf:delete e._x_ignore})};Fe("ignore",$m);Fe("effect",Ln((e,{expression:t},{effect:i})=>{i(_i(e,t))}));function rr(e,t,i,n){let s=e,r=l=>n(l),o={},a=(l,c)=>h=>c(l,h);return i.includes("dot")&&(t=Lv(t)),i.includes("camel")&&(t=Nv(t)),i.includes("capture")&&(o.capture=!0),i.includes("window")&&(s=window),i.includes("document")&&(s=document),i.includes("passive")&&(o.passive=i[i.indexOf("passive")+1]!=="false"),r=qm(i,r),i.includes("prevent")&&(r=a(r,(l,c)=>{c.preventDefault(),l(c)})),i.includes("stop")&&(r=a(r,(l,c)=>{c.stopPropagation(),l(c)})),i.includes("once")&&(r=a(r,(l,c)=>{l(c),s.removeEventListener(t,r,o)})),(i.includes("away")||i.includes("outside"))&&(s=document,r=a(r,(l,c)=>{e.contains(c.target)||c.target.isConnected!==!1&&(e.offsetWidth<1&&e.offsetHeight<1||e._x_isShown!==!1&&l(c))})),i.includes("self")&&(r=a(r,(l,c)=>{c.target===e&&l(c)})),t==="submit"&&(r=a(r,(l,c)=>{c.target._x_pendingModelUpdates&&c.target._x_pendingModelUpdates.forEach(h=>h()),l(c)})),(Ov(t)||Ym(t))&&(r=a(r,(l,c)=>{Fv(c,i)||l(c)})),s.addEventListener(t,r,o),()=>{s.removeEventListener(t,r,o)}}function qm(e,t){if(e.includes("debounce")){let i=e[e.indexOf("debounce")+1]||"invalid-wait",n=qa(i.split("ms")[0])?Number(i.split("ms")[0]):250;t=xm(t,n)}if(e.includes("throttle")){let i=e[e.indexOf("throttle")+1]||"invalid-wait",n=qa(i.split("ms")[0])?Number(i.split("ms")[0]):250;t=vm(t,n)}return t}function Lv(e){return e.replace(/-/g,".")}function Nv(e){return e.toLowerCase().replace(/-(\w)/g,(t,i)=>i.toUpperCase())}function qa(e){return!Array.isArray(e)&&!isNaN(e)}function Dv(e){return[" ","_"].includes(e)?e:e.replace(/([a-z])([A-Z])/g,"$1-$2").replace(/[_\s]/,"-").toLowerCase()}function Ov(e){return["keydown","keyup"].includes(e)}function Ym(e){return["contextmenu","click","mouse"].some(t=>e.includes(t))}var Uv=["window","document","prevent","stop","once","capture","self","away","outside","passive","dot","camel","preserve-scroll","blur","change","lazy","number","boolean","trim","fill","unintrusive","parent"];function Fv(e,t){let i=t.filter((r,o)=>r==="false"&&t[o-1]==="passive"?!1:!Uv.includes(r));if(i.includes("debounce")){let r=i.indexOf("debounce");i.splice(r,qa((i[r+1]||"invalid-wait").split("ms")[0])?2:1)}if(i.includes("throttle")){let r=i.indexOf("throttle");i.splice(r,qa((i[r+1]||"invalid-wait").split("ms")[0])?2:1)}if(i.length===0||i.length===1&&Pp(e.key).includes(i[0]))return!1;let s=["ctrl","shift","alt","meta","cmd","super"].filter(r=>i.includes(r));return i=i.filter(r=>!s.includes(r)),!(s.length>0&&s.filter(o=>((o==="cmd"||o==="super")&&(o="meta"),e[`${o}Key`])).length===s.length&&(Ym(e.type)||Pp(e.key).includes(i[0])))}function Pp(e){if(!e)return[];e=Dv(e);let t={ctrl:"control",slash:"/",space:" ",spacebar:" ",cmd:"meta",esc:"escape",up:"arrow-up",down:"arrow-down",left:"arrow-left",right:"arrow-right",period:".",comma:",",equal:"=",minus:"-",underscore:"_"};return t[e]=e,Object.keys(t).map(i=>{if(t[i]===e)return i}).filter(i=>i)}Fe("model",(e,{modifiers:t,expression:i},{effect:n,cleanup:s})=>{let r=e;t.includes("parent")&&(r=Xi(e,x=>x!==e));let o=_i(r,i),a;typeof i=="string"?a=_i(r,`${i} = __placeholder`):typeof i=="function"&&typeof i()=="string"?a=_i(r,`${i()} = __placeholder`):a=()=>{};let l=()=>{let x;return o(p=>x=p),Ip(x)?x.get():x},c=x=>{let p;o(m=>p=m),Ip(p)?p.set(x):a(()=>{},{scope:{__placeholder:x}})};typeof i=="string"&&e.type==="radio"&&Ue(()=>{e.hasAttribute("name")||e.setAttribute("name",i)});let h=t.includes("change")||t.includes("lazy"),u=t.includes("blur"),f=t.includes("enter"),d=h||u||f,g;if(ts)g=()=>{};else if(d){let x=[],p=m=>c(ka(e,t,m,l()));if(h&&x.push(rr(e,"change",t,p)),u&&(x.push(rr(e,"blur",t,p)),e.form)){let m=e.form,y=()=>p({target:e});m._x_pendingModelUpdates||(m._x_pendingModelUpdates=[]),m._x_pendingModelUpdates.push(y),s(()=>{m._x_pendingModelUpdates&&m._x_pendingModelUpdates.splice(m._x_pendingModelUpdates.indexOf(y),1)})}f&&x.push(rr(e,"keydown",t,m=>{m.key==="Enter"&&p(m)})),g=()=>x.forEach(m=>m())}else{let x=e.tagName.toLowerCase()==="select"||["checkbox","radio"].includes(e.type)?"change":"input";g=rr(e,x,t,p=>{c(ka(e,t,p,l()))})}if(t.includes("fill")&&([void 0,null,""].includes(l())||Xa(e)&&Array.isArray(l())||e.tagName.toLowerCase()==="select"&&e.multiple)&&c(ka(e,t,{target:e},l())),e._x_removeModelListeners||(e._x_removeModelListeners={}),e._x_removeModelListeners.default=g,s(()=>e._x_removeModelListeners.default()),e.form){let x=rr(e.form,"reset",[],p=>{zu(()=>e._x_model&&e._x_model.set(ka(e,t,{target:e},l())))});s(()=>x())}if(e._x_model={get(){return l()},set(x){c(x)},setWithModifiers:qm(t,c)},e._x_forceModelUpdate=x=>{x===void 0&&typeof i=="string"&&i.match(/\./)&&(x=""),Ue(()=>{Xa(e)?Array.isArray(x)?e.checked=x.some(p=>p==e.value):e.checked=!!x:Gu(e)?typeof x=="boolean"?e.checked=za(e.value)===x:e.checked=e.value==x:gm(e,"value",x)})},e.tagName==="SELECT"){let x=new MutationObserver(()=>{e._x_forceModelUpdate(l())});x.observe(e,{childList:!0}),s(()=>x.disconnect())}n(()=>{let x=l();t.includes("unintrusive")&&document.activeElement.isSameNode(e)||e._x_forceModelUpdate(x)})});function ka(e,t,i,n){return Ue(()=>{if(i instanceof CustomEvent&&i.detail!==void 0)return i.detail!==null&&i.detail!==void 0?i.detail:i.target.value;if(Xa(e))if(Array.isArray(n)){let s=null;return t.includes("number")?s=lu(i.target.value):t.includes("boolean")?s=za(i.target.value):s=i.target.value,i.target.checked?n.includes(s)?n:n.concat([s]):n.filter(r=>!Bv(r,s))}else return i.target.checked;else{if(e.tagName.toLowerCase()==="select"&&e.multiple)return t.includes("number")?Array.from(i.target.selectedOptions).map(s=>{let r=s.value||s.text;return lu(r)}):t.includes("boolean")?Array.from(i.target.selectedOptions).map(s=>{let r=s.value||s.text;return za(r)}):Array.from(i.target.selectedOptions).map(s=>s.value||s.text);{let s;return Gu(e)?i.target.checked?s=i.target.value:s=n:s=i.target.value,t.includes("number")?lu(s):t.includes("boolean")?za(s):t.includes("trim")?s.trim():s}}})}function lu(e){let t=e?parseFloat(e):null;return kv(t)?t:e}function Bv(e,t){return e==t}function kv(e){return!Array.isArray(e)&&!isNaN(e)}function Ip(e){return e!==null&&typeof e=="object"&&typeof e.get=="function"&&typeof e.set=="function"}Fe("cloak",e=>queueMicrotask(()=>Ue(()=>e.removeAttribute(cr("cloak")))));fm(()=>`[${cr("init")}]`);Fe("init",Ln((e,{expression:t},{evaluate:i})=>typeof t=="string"?!!t.trim()&&i(t,{},!1):i(t,{},!1)));Fe("text",(e,{expression:t},{effect:i,evaluateLater:n})=>{let s=n(t);i(()=>{s(r=>{Ue(()=>{e.textContent=r})})})});Fe("html",(e,{expression:t},{effect:i,evaluateLater:n})=>{let s=n(t);i(()=>{s(r=>{Ue(()=>{Array.from(e.children).forEach(o=>Us(o)),e.innerHTML=r??"",e._x_ignoreSelf=!0,gn(e),delete e._x_ignoreSelf})})},{priority:"structural"})});Fu(Qp(":",tm(cr("bind:"))));var Km=(e,{value:t,modifiers:i,expression:n,original:s},{effect:r,cleanup:o})=>{if(!t){let l={};kx(l),_i(e,n)(h=>{Mm(e,h,s)},{scope:l});return}if(t==="key")return zv(e,n);if(e._x_inlineBindings&&e._x_inlineBindings[t]&&e._x_inlineBindings[t].extract)return;let a=_i(e,n);r(()=>a(l=>{l===void 0&&typeof n=="string"&&n.match(/\./)&&(l=""),Ue(()=>gm(e,t,l,i))})),o(()=>{e._x_undoAddedClasses&&e._x_undoAddedClasses(),e._x_undoAddedStyles&&e._x_undoAddedStyles()})};Km.inline=(e,{value:t,modifiers:i,expression:n})=>{t&&(e._x_inlineBindings||(e._x_inlineBindings={}),e._x_inlineBindings[t]={expression:n,extract:!1})};Fe("bind",Km);function zv(e,t){e._x_keyExpression=t}um(()=>`[${cr("data")}]`);var ws=Symbol();Fe("data",(e,{expression:t},{cleanup:i})=>{if(Vv(e))return;let n=e[ws];if(n?.expression===t)return;t=t===""?"{}":t;let s={};Ga(s,e);let r={};Hx(r,s);let o=As(e,t,{scope:r});(o===void 0||o===!0)&&(o={}),Ga(o,e);let a;if(n?.reactiveData){a=n.reactiveData,Hv(a,o);let c={expression:t};e[ws]=c,queueMicrotask(()=>{e[ws]===c&&delete e[ws]})}else a=ar(o);Ou(a,i);let l=Po(e,a);Ln(()=>{a.init&&As(e,a.init)})(),i(()=>{a.destroy&&As(e,a.destroy),l();let c={reactiveData:a};e[ws]=c,queueMicrotask(()=>{e[ws]===c&&delete e[ws]})})});function Hv(e,t){Object.keys(t).forEach(i=>{let n=Object.getOwnPropertyDescriptor(t,i),s=Object.getOwnPropertyDescriptor(e,i);n.get||n.set||s?.get||s?.set?(s&&delete e[i],s||(e[i]=void 0),n.get||n.set?Object.defineProperty(e,i,n):e[i]=t[i]):e[i]=t[i]}),Object.keys(e).filter(i=>!Object.prototype.hasOwnProperty.call(t,i)).forEach(i=>delete e[i])}Io((e,t)=>{e._x_dataStack&&(t._x_dataStack=e._x_dataStack,t.setAttribute("data-has-alpine-state",!0))});function Vv(e){return ts?_u?!0:e.hasAttribute("data-has-alpine-state"):!1}Fe("show",(e,{modifiers:t,expression:i},{effect:n})=>{let s=_i(e,i);e._x_doHide||(e._x_doHide=()=>{Ue(()=>{e.style.setProperty("display","none",t.includes("important")?"important":void 0)})}),e._x_doShow||(e._x_doShow=()=>{Ue(()=>{e.style.length===1&&e.style.display==="none"?e.removeAttribute("style"):e.style.removeProperty("display")})});let r=()=>{e._x_doHide(),e._x_isShown=!1},o=()=>{e._x_doShow(),e._x_isShown=!0},a=()=>setTimeout(o),l=Su(u=>u?o():r(),u=>{typeof e._x_toggleAndCascadeWithTransitions=="function"?e._x_toggleAndCascadeWithTransitions(e,u,o,r):u?a():r()}),c,h=!0;n(()=>s(u=>{!h&&u===c||(t.includes("immediate")&&(u?a():r()),l(u),c=u,h=!1)}))});Fe("for",Ln((e,{expression:t},{effect:i,cleanup:n})=>{let s=Xv(t),r=_i(e,s.items),o=_i(e,e._x_keyExpression||"index");e._x_lookup=new Map,i(()=>Wv(e,s,r,o),{priority:"structural"}),n(()=>{e._x_lookup.forEach(a=>Ue(()=>{Us(a),a.remove()})),delete e._x_lookup,delete e._x_lastRenderedEl})}));function Gv(e){return t=>{Object.entries(t).forEach(([i,n])=>{e[i]=n})}}function Wv(e,t,i,n){i(s=>{qv(s)&&(s=Array.from({length:s},(c,h)=>h+1)),s==null&&(s=[]),s instanceof Set&&(s=Array.from(s)),s instanceof Map&&(s=Array.from(s));let r=e._x_lookup,o=new Map;e._x_lookup=o;let a=Yv(s),l=Object.entries(s).map(([c,h])=>{a||(c=parseInt(c));let u=$v(t,h,c,s),f;return n(d=>{typeof d=="object"&&mn("x-for key cannot be an object, it must be a string or an integer",e),r.has(d)&&(o.set(d,r.get(d)),r.delete(d)),f=d},{scope:{index:c,...u}}),[f,u]});Ue(()=>{r.forEach(u=>{Us(u),u.remove()});let c=new Set,h=e;l.forEach(([u,f])=>{if(o.has(u)){let x=o.get(u);x._x_refreshXForScope(f),h.nextElementSibling!==x&&(h.nextElementSibling&&x.replaceWith(h.nextElementSibling),h.after(x)),h=x,x._x_currentIfEl&&(x.nextElementSibling!==x._x_currentIfEl&&h.after(x._x_currentIfEl),h=x._x_currentIfEl);return}e.content.children.length>1&&mn("x-for templates require a single root element, additional elements will be ignored.",e);let d=document.importNode(e.content,!0).firstElementChild,g=ar(f);Po(d,g,e),d._x_refreshXForScope=Gv(g),o.set(u,d),c.add(d),h.after(d),h=d}),c.forEach(u=>gn(u)),h!==e?e._x_lastRenderedEl=h:delete e._x_lastRenderedEl})})}function Xv(e){let t=/,([^,\}\]]*)(?:,([^,\}\]]*))?$/,i=/^\s*\(|\)\s*$/g,n=/([\s\S]*?)\b(?:in|of)\b([\s\S]*)/,s=e.match(n);if(!s)return;let r={};r.items=s[2].trim();let o=s[1].replace(i,"").trim(),a=o.match(t);return a?(r.item=o.replace(t,"").trim(),r.index=a[1].trim(),a[2]&&(r.collection=a[2].trim())):r.item=o,r}function $v(e,t,i,n){let s={};return/^\[.*\]$/.test(e.item)&&Array.isArray(t)?e.item.replace("[","").replace("]","").split(",").map(o=>o.trim()).forEach((o,a)=>{s[o]=t[a]}):/^\{.*\}$/.test(e.item)&&!Array.isArray(t)&&typeof t=="object"?e.item.replace("{","").replace("}","").split(",").map(o=>o.trim()).forEach(o=>{s[o]=t[o]}):s[e.item]=t,e.index&&(s[e.index]=i),e.collection&&(s[e.collection]=n),s}function qv(e){return typeof e!="object"&&!isNaN(e)}function Yv(e){return typeof e=="object"&&!Array.isArray(e)}function Zm(){}Zm.inline=(e,{expression:t},{cleanup:i})=>{let n=Qa(e);n&&(n._x_refs||(n._x_refs={}),n._x_refs[t]=e,i(()=>delete n._x_refs[t]))};Fe("ref",Zm);Fe("if",Ln((e,{expression:t},{effect:i,cleanup:n})=>{e.tagName.toLowerCase()!=="template"&&mn("x-if can only be used on a <template> tag",e);let s=_i(e,t),r=()=>{if(e._x_currentIfEl)return e._x_currentIfEl;let a=e.content.cloneNode(!0).firstElementChild;return Po(a,{},e),Ue(()=>{e.after(a),gn(a)}),e._x_currentIfEl=a,e._x_lastRenderedEl=a,e._x_undoIf=()=>{Ue(()=>{Us(a),a.remove()}),delete e._x_currentIfEl,delete e._x_lastRenderedEl},a},o=()=>{e._x_undoIf&&(e._x_undoIf(),delete e._x_undoIf)};i(()=>s(a=>{a?r():o()}),{priority:"structural"}),n(()=>e._x_undoIf&&e._x_undoIf())}));Fe("id",(e,{expression:t},{evaluate:i})=>{i(t).forEach(s=>Cv(e,s))});Io((e,t)=>{e._x_ids&&(t._x_ids=e._x_ids)});Fu(Qp("@",tm(cr("on:"))));Fe("on",Ln((e,{value:t,modifiers:i,expression:n},{cleanup:s})=>{let r=n?_i(e,n):()=>{};e.tagName.toLowerCase()==="template"&&(e._x_forwardEvents||(e._x_forwardEvents=[]),e._x_forwardEvents.includes(t)||e._x_forwardEvents.push(t));let o=rr(e,t,i,a=>{r(()=>{},{scope:{$event:a},params:[a]})});s(()=>o())}));il("Collapse","collapse","collapse");il("Intersect","intersect","intersect");il("Focus","trap","focus");il("Mask","mask","mask");function il(e,t,i){Fe(t,n=>mn(`You can't use [x-${t}] without first installing the "${e}" plugin here: https://alpinejs.dev/plugins/${i}`,n))}Fe("html",(e,{expression:t})=>{Za(new Error("Using the x-html directive is prohibited in the CSP build"),e)});hr.setEvaluator(Yx);hr.setRawEvaluator(qx);hr.setReactivityEngine({reactive:Ku,effect:(e,t={})=>{let i;return i=rv(e,{scheduler:()=>{i&&(t.scheduler?t.scheduler(i):i())}}),i},release:ov,raw:me});var Kv=hr,de=Kv;var Nn=class extends Error{constructor(t,i=0,n={}){super(t),this.status=i,this.body=n}},Zu=()=>document.cookie.match(/(?:^|; )csrftoken=([^;]+)/)?.[1]??"";async function Ju(e){let i=e.headers.get("Content-Type")?.includes("application/json")?await e.json():null;if(e.ok)return i;throw new Nn(i?.error??"The server did not answer as expected; reload the page.",e.status,i??{})}var Jm=0;function jm(e){Jm+=e,document.documentElement.toggleAttribute("data-busy",Jm>0)}async function Fs(e){jm(1);try{return await e}finally{setTimeout(()=>jm(-1),30)}}async function Zv(e,t){try{return await fetch(e,t)}catch{throw new Nn("The server does not answer. Is Fair Stand still running?")}}async function Jv(e,t){for(;;){let i=await Zv(e,t);if(i.status!==202)return i;let{again:n,work:s}=await i.clone().json();if(tg(),!n)return i;let r=await hi(s,o=>Qm(o));if(Qm(null),r.state==="cancelled")throw new Nn("Stopped; nothing was changed.");if(r.state!=="done")throw new Nn(r.error)}}var tg=()=>window.dispatchEvent(new Event("work")),Qm=e=>window.dispatchEvent(new CustomEvent("making",{detail:e?.open?e:null})),No=(e,t,i)=>Fs(Jv(e,t).then(i));async function eg(e){return e.ok||await Ju(e),e.arrayBuffer()}async function jv(e){if(!e.ok)throw new Nn(await e.text(),e.status);return e.text()}var ig=e=>({method:"POST",headers:{Accept:"application/json","Content-Type":"application/json","X-CSRFToken":Zu()},body:JSON.stringify(e)}),Ne=e=>No(e,{headers:{Accept:"application/json"}},Ju),zt=(e,t={})=>No(e,ig(t),Ju),He=e=>No(e,{headers:{Accept:"application/octet-stream, application/json"}},eg),ju=(e,t)=>No(e,ig(t),eg),ng=e=>No(e,void 0,jv);function sg(e,t,i){return new Promise((n,s)=>{let r=new XMLHttpRequest;r.open("POST",e),r.setRequestHeader("X-CSRFToken",Zu()),r.setRequestHeader("Accept","application/json"),r.responseType="json",r.upload.onprogress=a=>a.lengthComputable&&i(a.loaded/a.total),r.onload=()=>r.status<300?n(r.response):s(new Nn(r.response?.error??"The file was refused.")),r.onerror=()=>s(new Nn("The server does not answer. Is Fair Stand still running?"));let o=new FormData;o.append("file",t),r.send(o)})}async function hi(e,t){let i=()=>navigator.sendBeacon(e.let_go_url,Qv());window.addEventListener("pagehide",i);try{for(let n=120;;n=Math.min(n*1.4,500)){let s=await Ne(e.url);if(t(s),!s.open)return s;await new Promise(r=>setTimeout(r,n))}}finally{window.removeEventListener("pagehide",i),tg()}}function Qv(){let e=new FormData;return e.append("csrfmiddlewaretoken",Zu()),e}var Li=e=>zt(e.cancel_url);var dt=JSON.parse(document.getElementById("start").textContent),ct={view:null,tower:null,section:null,store:null};var Qu=new Map,Ti=(e,t)=>Qu.set(e,t),Dn=e=>Qu.get(e)??{},rg=()=>[...Qu.values()],og=(...e)=>{let t={};for(let i of e)for(let[n,s]of Object.entries(Object.getOwnPropertyDescriptors(i))){if(n in t)throw new Error(`Two parts of the bench use the name \u201C${n}\u201D.`);t[n]=s}return Object.defineProperties({},t)};var tf=new Map;function Do(e,t,i){let n=`${t},${i}`;return tf.has(n)||tf.set(n,new Intl.NumberFormat("en",{minimumFractionDigits:t,maximumFractionDigits:i})),tf.get(n).format(e)}var ae=(e,t=0)=>Do(e,t,t);var Oo=({facet:e,weights:t})=>({facet:e,weights:t}),tS={span:"Click a wall of the opening",slope:"Click a face",thickness:"Click a wall",diameter:"Click near a round edge"};Ti("inspect",{hint(e){return e.painting||e.dyeing?e.paintBy==="fill"?"Click a face":"Drag over the model; drag beside it to look around":e.measuring==="distance"?e.places.length?"Click the second place":"Click the first place":e.measuring?tS[e.measuring]:""},inHand:e=>!!(e.painting||e.dyeing||e.measuring),grab(e,t,i){if(!(e.painting||e.dyeing)||e.paintBy!=="brush")return null;let n=ct.view.pick(t,i);return n&&{stroke:[n]}},dragging:(e,t,i)=>t.stroke.push(i),dropped:(e,t)=>e.paintStroke(t.stroke),click(e,t,i){let n=ct.view.pick(t,i);return e.painting||e.dyeing?e.paintAt(n):e.measuring?e.measureAt(n):e.choosePatchAt(n)},leave:e=>e.endTools(),escape:e=>e.endTools(),data:{painting:"",dyeing:"",ownDye:"#8a5a83",ownDyeName:"",showColours:!0,paintBy:"fill",creaseDeg:30,brushMm:4,measuring:"",places:[],measureKinds:[["distance","distance"],["span","span"],["slope","slope"],["thickness","wall"],["diameter","round edge"]],paintSides:[["show","show side"],["back","back side"],["none","rub out"]],measuresUrl:dt.urls.measures,bodies:null,alone:0,get overhangText(){let e=this.findings.overhang;return e?`${ae(e.area_mm2,1)} mm\xB2 overhang in ${e.patches} patch${e.patches===1?"":"es"}.`:""},get thresholdText(){return`${this.threshold}\xB0`},get slopeLine(){let[e,t]=this.onArc(64);return`M8 46L${e} ${t}`},get slopeArc(){let[e,t]=this.onArc(24);return`M32 46A24 24 0 0 0 ${e} ${t}`},get slopeText(){let e=this.threshold*Math.PI/360;return[8+30*Math.cos(e),48-28*Math.sin(e)]},onArc(e){let t=this.threshold*Math.PI/180,i=Math.min(e,42/Math.max(Math.sin(t),1e-6));return[8+i*Math.cos(t),46-i*Math.sin(t)]},endTools(){this.painting=this.measuring=this.dyeing="",this.places=[]},fillLedger(e){let t=this.$refs.ledger,i=[...t.querySelectorAll("[data-note]")].filter(c=>c.value).map(c=>[c.dataset.note,c.value]),n=t.contains(document.activeElement)?document.activeElement:null,s=n?.dataset.note,r=s?[n.selectionStart,n.selectionEnd]:null,o=[...t.querySelectorAll("[data-ways-for]")].filter(c=>c.innerHTML).map(c=>[c.dataset.waysFor,c.innerHTML]),a=t.closest("aside")?.scrollTop;t.innerHTML=e;for(let[c,h]of i){let u=t.querySelector(`[data-note="${c}"]`);u&&(u.value=h)}if(this.waysOf===this.state.key)for(let[c,h]of o){let u=t.querySelector(`[data-ways-for="${c}"]`);u&&(u.innerHTML=h)}this.markChosen(!1);let l=s&&t.querySelector(`[data-note="${s}"]`);l&&(l.focus({preventScroll:!0}),l.setSelectionRange(...r)),a!==void 0&&(t.closest("aside").scrollTop=a)},get flags(){return this.findings.places.filter(e=>!e.accepted)},async loadPatches(){let e=`${this.state.key}@${this.findings.threshold_deg}`;if(this.patchesOf===e)return;this.patchesOf=e;let t=`${dt.urls.patches}?threshold=${this.findings.threshold_deg}&v=${this.state.key}`;try{let i=new Uint32Array(await He(t));if(this.patchesOf!==e)return;this.patches=i,this.showChosenPatch()}catch(i){this.refused(i)}},choose(e){let{accept:t,takeBack:i,ways:n,turnTo:s,forkTo:r,propSo:o,propOf:a,cutSo:l,cutOf:c,shapeSo:h,shapeOf:u}=e.closest("button")?.dataset??{},f=e.closest("[data-finding]"),d=e.closest("[data-open]");t?this.accept(t,e.closest(".finding-actions").querySelector("input").value):i?this.takeBack(i):n?this.showWaysOut(n):a?this.propSo(a,o):c?this.cutSo(c,l):u?this.shapeSo(u,h):s?this.turnTo(s):r?this.forkTurned(r.split(",").map(Number)):d?this.choosePlace(d.dataset.open):f&&this.chooseFinding(f.dataset.finding)},choosePlace(e){let t=this.findings.places.find(n=>n.id===e),i=t?t.findings[0]:e;this.placeOf(this.chosen)===e?(this.chosen=null,this.markChosen()):this.chooseFinding(i)},placeOf(e){return e&&(this.findings.places.find(t=>t.findings.includes(e))?.id??e)},accept(e,t){let i=this.findings.findings.find(n=>n.id===e);return this.edit("accept",{finding:i.kind,place:i.place,note:t,burden:i.burden,said_then:i.short})},takeBack(e){let t=this.findings.findings.find(i=>i.id===e);return this.edit("take_back",{finding:t.kind,place:t.place})},chooseFinding(e){let t=this.findings.findings.find(i=>i.id===e);t&&(this.chosen=e,this.markChosen(),this.setLayer(t.layer),ct.view.showPlace(t.center_mm,t.from_below))},markChosen(e=!0){let t=this.placeOf(this.chosen);for(let i of document.querySelectorAll("[data-place]")){let n=i.dataset.place===t;i.querySelector("[data-open]").setAttribute("aria-expanded",String(n)),i.querySelector(".place-body").hidden=!n}for(let i of document.querySelectorAll("[data-finding], .pin")){let n=i.dataset.pin?i.dataset.pin===t:i.dataset.finding===this.chosen;i.setAttribute("aria-current",String(n)),e&&n&&i.dataset.finding&&(i.closest("[data-place]").querySelector("[data-open]").scrollIntoView({block:"nearest"}),i.scrollIntoView({block:"nearest"}))}this.showChosenPatch()},showChosenPatch(){let e=this.findings.findings.find(s=>s.id===this.chosen),t=this.findings.places.find(s=>s.findings.includes(this.chosen)),i=new Set(e?.patch?[e.patch]:t?.patches??[]),n=[];i.size&&this.patches?.forEach((s,r)=>i.has(s)&&n.push(r)),ct.view.setChosenFacets(n)},nextFinding(e){let t=this.findings.places.flatMap(s=>s.findings),i=[...t.map(s=>this.findings.findings.find(r=>r.id===s)),...this.findings.findings.filter(s=>!t.includes(s.id))];if(!i.length)return;let n=i.findIndex(s=>s.id===this.chosen);this.chooseFinding(i[(n+e+i.length+(n<0&&e<0?1:0))%i.length].id)},previewThreshold(e){e>=1&&e<=89&&(this.threshold=e,ct.view.setThreshold(e),this.previewing=this.previewing??this.fetchPreview())},async fetchPreview(){try{let e;do{e=this.threshold;let t=await Ne(`${dt.urls.findings}?threshold=${e}`);t.ready&&this.threshold!==this.state.threshold_deg&&(this.findings={findings:[],places:[],...t},this.fillLedger(t.ledger_html),ct.tower.setData(t.tower,this.flags),this.markChosen())}while(e!==this.threshold)}catch(e){this.problem=e.message}finally{this.previewing=null}},async commitThreshold(){let e=this.threshold;e!==this.state.threshold_deg&&await this.edit("threshold",{threshold_deg:e})},choosePatchAt(e){let t=e&&this.patches?.[e.facet],i=t&&this.findings.places.find(s=>s.patches.includes(t)),n=t&&(this.findings.findings.find(s=>s.patch===t)??this.findings.findings.find(s=>s.id===i?.findings[0]));n&&(this.chosen=n.id,this.markChosen(),this.setLayer(n.layer))},startPainting(e){this.painting=this.painting===e?"":e,this.measuring=this.dyeing=""},get dyes(){let e=new Set(dt.dyes.map(t=>t.rgb));return[...dt.dyes,...this.state.palette.filter(t=>!e.has(t.rgb))]},startDyeing(e){this.dyeing=this.dyeing===e?"":e,this.dyeing&&(this.painting=this.measuring="")},setShowColours(e){this.showColours=e,ct.view.setShowColours(e)},dyeParameters(e){let t=this.dyeing===this.ownDye&&this.ownDyeName.trim()?{name:this.ownDyeName.trim()}:{},i=this.paintBy==="fill"?{crease_deg:this.creaseDeg}:{brush_mm:this.brushMm};return{colour:this.dyeing,places:e,...t,...i}},paintAt(e){if(e)return this.paintBy==="brush"?this.paintStroke([e]):this.dyeing?this.edit("colour",this.dyeParameters([Oo(e)])):this.edit("fill",{side:this.painting,at:Oo(e),crease_deg:this.creaseDeg})},paintStroke(e){let t=[];for(let i of e){let n=t.at(-1)?.point;(!n||Math.hypot(...i.point.map((s,r)=>s-n[r]))>this.brushMm/4)&&t.push(i)}return this.dyeing?this.edit("colour",this.dyeParameters(t.map(Oo))):this.edit("paint",{side:this.painting,places:t.map(Oo),brush_mm:this.brushMm})},startMeasure(e){this.measuring=this.measuring===e?"":e,this.painting=this.dyeing="",this.places=[]},async measureAt(e){if(!e||(this.places.push(Oo(e)),this.places.length<(this.measuring==="distance"?2:1)))return;let t=de.raw(this.places);this.places=[],await this.edit("measure",{what:this.measuring,anchors:t})},forgetBodies(){let e=this.bodies!==null;this.bodies=this.bodyOfFacet=null,this.alone=0,ct.view.model.isHidden=null,e&&this.loadBodies()},async loadBodies(){try{this.bodies=this.bodies??await Ne(dt.urls.bodies),this.bodyOfFacet=this.bodyOfFacet??new Uint32Array(await He(this.state.body_of_facet_url))}catch(e){this.problem=e.message}},showAlone(e){this.alone=this.alone===e?0:e;let t=de.raw(this.bodyOfFacet);ct.view.setHidden(this.alone?i=>t[i]!==this.alone:null)},async separate(){try{let{work:e}=await zt(dt.urls.separate),t=await hi(e,i=>this.making=i.open?i:null);t.state==="done"?location.href=t.result.url:t.state!=="cancelled"&&(this.problem=t.error)}catch(e){this.problem=e.message}},bodyText(e){return`${e.number}: ${e.size_mm.map(t=>t.toFixed(1)).join(" \xD7 ")} mm, ${ae(e.volume_mm3)} mm\xB3`},sameText:e=>`Bodies ${e.join(", ")} have the same shape.`,mirroredText:e=>`Bodies ${e.join(" and ")} are mirror images.`,measureText:e=>`${e.kind}: ${e.text}`}});var hs={LEFT:0,MIDDLE:1,RIGHT:2,ROTATE:0,DOLLY:1,PAN:2},us={ROTATE:0,PAN:1,DOLLY_PAN:2,DOLLY_ROTATE:3},Bg=0,Lf=1,kg=2;var oa=1,zg=2,Br=3,di=0,oi=1,Te=2,Ys=0,kr=1,Nf=2,Df=3,Of=4,Hg=5;var Ks=100,Vg=101,Gg=102,Wg=103,Xg=104,$g=200,qg=201,Yg=202,Kg=203,Uf=204,Ff=205,Zg=206,Jg=207,jg=208,Qg=209,t_=210,e_=211,i_=212,n_=213,s_=214,Nl=0,Dl=1,Ol=2,Rr=3,Ul=4,Fl=5,Bl=6,kl=7,Bf=0,r_=1,o_=2,Sn=0,kf=1,zf=2,Hf=3,Vf=4,Gf=5,Wf=6,Xf=7;var $f=300,Zs=301,zr=302,hc=303,uc=304,zl=1e3,yn=1001,Hl=1002,ii=1003,a_=1004;var aa=1005;var xi=1006,fc=1007;var Wn=1008;var Bi=1009,qf=1010,Yf=1011,Hr=1012,dc=1013,an=1014,ln=1015,cn=1016,pc=1017,mc=1018,Js=1020,Kf=35902,Zf=35899,Jf=1021,jf=1022,hn=1023,Hn=1026,Xn=1027,Qf=1028,gc=1029,fs=1030,_c=1031;var yc=1033,la=33776,ca=33777,ha=33778,ua=33779,xc=35840,vc=35841,Sc=35842,wc=35843,Mc=36196,bc=37492,Tc=37496,Ec=37488,Ac=37489,fa=37490,Rc=37491,Cc=37808,Pc=37809,Ic=37810,Lc=37811,Nc=37812,Dc=37813,Oc=37814,Uc=37815,Fc=37816,Bc=37817,kc=37818,zc=37819,Hc=37820,Vc=37821,Gc=36492,Wc=36494,Xc=36495,$c=36283,qc=36284,da=36285,Yc=36286;var Go=2300,Vl=2301,Il=2302,bf=2303,Tf=2400,Ef=2401,Af=2402;var l_=3200;var td=0,c_=1,$n="",Oi="srgb",Vs="srgb-linear",Wo="linear",le="srgb";var Ll=7680;var h_=519,u_=512,f_=513,d_=514,ed=515,p_=516,m_=517,id=518,nd=519,g_=35044,sd=35048;var rd="300 es",qi=2e3,Xo=2001;function eS(e){for(let t=e.length-1;t>=0;--t)if(e[t]>=65535)return!0;return!1}function iS(e){return ArrayBuffer.isView(e)&&!(e instanceof DataView)}function $o(e){return document.createElementNS("http://www.w3.org/1999/xhtml",e)}function __(){let e=$o("canvas");return e.style.display="block",e}var ag={},Cr=null;function od(...e){let t="THREE."+e.shift();Cr?Cr("log",t,...e):console.log(t,...e)}function y_(e){let t=e[0];if(typeof t=="string"&&t.startsWith("TSL:")){let i=e[1];i&&i.isStackTrace?e[0]+=" "+i.getLocation():e[1]='Stack trace not available. Enable "THREE.Node.captureStackTrace" to capture stack traces.'}return e}function Ct(...e){e=y_(e);let t="THREE."+e.shift();if(Cr)Cr("warn",t,...e);else{let i=e[0];i&&i.isStackTrace?console.warn(i.getError(t)):console.warn(t,...e)}}function Lt(...e){e=y_(e);let t="THREE."+e.shift();if(Cr)Cr("error",t,...e);else{let i=e[0];i&&i.isStackTrace?console.error(i.getError(t)):console.error(t,...e)}}function Ho(...e){let t=e.join(" ");t in ag||(ag[t]=!0,Ct(...e))}function x_(e,t,i){return new Promise(function(n,s){function r(){switch(e.clientWaitSync(t,e.SYNC_FLUSH_COMMANDS_BIT,0)){case e.WAIT_FAILED:s();break;case e.TIMEOUT_EXPIRED:setTimeout(r,i);break;default:n()}}setTimeout(r,i)})}var v_={[Nl]:Nl,[Ol]:Bl,[Ul]:Ul,[Rr]:Fl,[Dl]:Dl,[Bl]:Ol,[kl]:kl,[Fl]:Rr},rn=class{addEventListener(t,i){this._listeners===void 0&&(this._listeners={});let n=this._listeners;n[t]===void 0&&(n[t]=[]),n[t].indexOf(i)===-1&&n[t].push(i)}hasEventListener(t,i){let n=this._listeners;return n===void 0?!1:n[t]!==void 0&&n[t].indexOf(i)!==-1}removeEventListener(t,i){let n=this._listeners;if(n===void 0)return;let s=n[t];if(s!==void 0){let r=s.indexOf(i);r!==-1&&s.splice(r,1)}}dispatchEvent(t){let i=this._listeners;if(i===void 0)return;let n=i[t.type];if(n!==void 0){t.target=this;let s=n.slice(0);for(let r=0,o=s.length;r<o;r++)s[r].call(this,t);t.target=null}}},ui=["00","01","02","03","04","05","06","07","08","09","0a","0b","0c","0d","0e","0f","10","11","12","13","14","15","16","17","18","19","1a","1b","1c","1d","1e","1f","20","21","22","23","24","25","26","27","28","29","2a","2b","2c","2d","2e","2f","30","31","32","33","34","35","36","37","38","39","3a","3b","3c","3d","3e","3f","40","41","42","43","44","45","46","47","48","49","4a","4b","4c","4d","4e","4f","50","51","52","53","54","55","56","57","58","59","5a","5b","5c","5d","5e","5f","60","61","62","63","64","65","66","67","68","69","6a","6b","6c","6d","6e","6f","70","71","72","73","74","75","76","77","78","79","7a","7b","7c","7d","7e","7f","80","81","82","83","84","85","86","87","88","89","8a","8b","8c","8d","8e","8f","90","91","92","93","94","95","96","97","98","99","9a","9b","9c","9d","9e","9f","a0","a1","a2","a3","a4","a5","a6","a7","a8","a9","aa","ab","ac","ad","ae","af","b0","b1","b2","b3","b4","b5","b6","b7","b8","b9","ba","bb","bc","bd","be","bf","c0","c1","c2","c3","c4","c5","c6","c7","c8","c9","ca","cb","cc","cd","ce","cf","d0","d1","d2","d3","d4","d5","d6","d7","d8","d9","da","db","dc","dd","de","df","e0","e1","e2","e3","e4","e5","e6","e7","e8","e9","ea","eb","ec","ed","ee","ef","f0","f1","f2","f3","f4","f5","f6","f7","f8","f9","fa","fb","fc","fd","fe","ff"],lg=1234567,Er=Math.PI/180,Pr=180/Math.PI;function Vr(){let e=Math.random()*4294967295|0,t=Math.random()*4294967295|0,i=Math.random()*4294967295|0,n=Math.random()*4294967295|0;return(ui[e&255]+ui[e>>8&255]+ui[e>>16&255]+ui[e>>24&255]+"-"+ui[t&255]+ui[t>>8&255]+"-"+ui[t>>16&15|64]+ui[t>>24&255]+"-"+ui[i&63|128]+ui[i>>8&255]+"-"+ui[i>>16&255]+ui[i>>24&255]+ui[n&255]+ui[n>>8&255]+ui[n>>16&255]+ui[n>>24&255]).toLowerCase()}function Bt(e,t,i){return Math.max(t,Math.min(i,e))}function ad(e,t){return(e%t+t)%t}function nS(e,t,i,n,s){return n+(e-t)*(s-n)/(i-t)}function sS(e,t,i){return e!==t?(i-e)/(t-e):0}function Vo(e,t,i){return(1-i)*e+i*t}function rS(e,t,i,n){return Vo(e,t,1-Math.exp(-i*n))}function oS(e,t=1){return t-Math.abs(ad(e,t*2)-t)}function aS(e,t,i){return e<=t?0:e>=i?1:(e=(e-t)/(i-t),e*e*(3-2*e))}function lS(e,t,i){return e<=t?0:e>=i?1:(e=(e-t)/(i-t),e*e*e*(e*(e*6-15)+10))}function cS(e,t){return e+Math.floor(Math.random()*(t-e+1))}function hS(e,t){return e+Math.random()*(t-e)}function uS(e){return e*(.5-Math.random())}function fS(e){e!==void 0&&(lg=e);let t=lg+=1831565813;return t=Math.imul(t^t>>>15,t|1),t^=t+Math.imul(t^t>>>7,t|61),((t^t>>>14)>>>0)/4294967296}function dS(e){return e*Er}function pS(e){return e*Pr}function mS(e){return e>0&&Number.isInteger(e)&&2**Math.round(Math.log2(e))===e}function gS(e){return Math.pow(2,Math.ceil(Math.log(e)/Math.LN2))}function ld(e){return Math.pow(2,Math.floor(Math.log(e)/Math.LN2))}function _S(e,t,i,n,s){let r=Math.cos,o=Math.sin,a=r(i/2),l=o(i/2),c=r((t+n)/2),h=o((t+n)/2),u=r((t-n)/2),f=o((t-n)/2),d=r((n-t)/2),g=o((n-t)/2);switch(s){case"XYX":e.set(a*h,l*u,l*f,a*c);break;case"YZY":e.set(l*f,a*h,l*u,a*c);break;case"ZXZ":e.set(l*u,l*f,a*h,a*c);break;case"XZX":e.set(a*h,l*g,l*d,a*c);break;case"YXY":e.set(l*d,a*h,l*g,a*c);break;case"ZYZ":e.set(l*g,l*d,a*h,a*c);break;default:Ct("MathUtils: .setQuaternionFromProperEuler() encountered an unknown order: "+s)}}function cd(e){switch(e.constructor){case Uint32Array:return 4294967295;case Uint16Array:return 65535;case Uint8Array:case Uint8ClampedArray:return 255;case Int32Array:return 2147483647;case Int16Array:return 32767;case Int8Array:return 127;default:return}}function S_(e,t){if(t.constructor===Float32Array)return e;let i=cd(t);if(i===void 0)throw new Error("THREE.MathUtils: Invalid component type.");return Math.max(e/i,-1)}function w_(e,t){if(t.constructor===Float32Array)return e;let i=cd(t);if(i===void 0)throw new Error("THREE.MathUtils: Invalid component type.");return Math.round(e*i)}var hd={DEG2RAD:Er,RAD2DEG:Pr,generateUUID:Vr,clamp:Bt,euclideanModulo:ad,mapLinear:nS,inverseLerp:sS,lerp:Vo,damp:rS,pingpong:oS,smoothstep:aS,smootherstep:lS,randInt:cS,randFloat:hS,randFloatSpread:uS,seededRandom:fS,degToRad:dS,radToDeg:pS,isPowerOfTwo:mS,ceilPowerOfTwo:gS,floorPowerOfTwo:ld,setQuaternionFromProperEuler:_S,normalize:w_,denormalize:S_},Tt=class{static{this.prototype.isVector2=!0}constructor(t=0,i=0){this.x=t,this.y=i}get width(){return this.x}set width(t){this.x=t}get height(){return this.y}set height(t){this.y=t}set(t,i){return this.x=t,this.y=i,this}setScalar(t){return this.x=t,this.y=t,this}setX(t){return this.x=t,this}setY(t){return this.y=t,this}setComponent(t,i){switch(t){case 0:this.x=i;break;case 1:this.y=i;break;default:throw new Error("THREE.Vector2: index is out of range: "+t)}return this}getComponent(t){switch(t){case 0:return this.x;case 1:return this.y;default:throw new Error("THREE.Vector2: index is out of range: "+t)}}clone(){return new this.constructor(this.x,this.y)}copy(t){return this.x=t.x,this.y=t.y,this}add(t){return this.x+=t.x,this.y+=t.y,this}addScalar(t){return this.x+=t,this.y+=t,this}addVectors(t,i){return this.x=t.x+i.x,this.y=t.y+i.y,this}addScaledVector(t,i){return this.x+=t.x*i,this.y+=t.y*i,this}sub(t){return this.x-=t.x,this.y-=t.y,this}subScalar(t){return this.x-=t,this.y-=t,this}subVectors(t,i){return this.x=t.x-i.x,this.y=t.y-i.y,this}multiply(t){return this.x*=t.x,this.y*=t.y,this}multiplyScalar(t){return this.x*=t,this.y*=t,this}divide(t){return this.x/=t.x,this.y/=t.y,this}divideScalar(t){return this.multiplyScalar(1/t)}applyMatrix3(t){let i=this.x,n=this.y,s=t.elements;return this.x=s[0]*i+s[3]*n+s[6],this.y=s[1]*i+s[4]*n+s[7],this}min(t){return this.x=Math.min(this.x,t.x),this.y=Math.min(this.y,t.y),this}max(t){return this.x=Math.max(this.x,t.x),this.y=Math.max(this.y,t.y),this}clamp(t,i){return this.x=Bt(this.x,t.x,i.x),this.y=Bt(this.y,t.y,i.y),this}clampScalar(t,i){return this.x=Bt(this.x,t,i),this.y=Bt(this.y,t,i),this}clampLength(t,i){let n=this.length();return this.divideScalar(n||1).multiplyScalar(Bt(n,t,i))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this}negate(){return this.x=-this.x,this.y=-this.y,this}dot(t){return this.x*t.x+this.y*t.y}cross(t){return this.x*t.y-this.y*t.x}lengthSq(){return this.x*this.x+this.y*this.y}length(){return Math.sqrt(this.x*this.x+this.y*this.y)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)}normalize(){return this.divideScalar(this.length()||1)}angle(){return Math.atan2(-this.y,-this.x)+Math.PI}angleTo(t){let i=Math.sqrt(this.lengthSq()*t.lengthSq());if(i===0)return Math.PI/2;let n=this.dot(t)/i;return Math.acos(Bt(n,-1,1))}distanceTo(t){return Math.sqrt(this.distanceToSquared(t))}distanceToSquared(t){let i=this.x-t.x,n=this.y-t.y;return i*i+n*n}manhattanDistanceTo(t){return Math.abs(this.x-t.x)+Math.abs(this.y-t.y)}setLength(t){return this.normalize().multiplyScalar(t)}lerp(t,i){return this.x+=(t.x-this.x)*i,this.y+=(t.y-this.y)*i,this}lerpVectors(t,i,n){return this.x=t.x+(i.x-t.x)*n,this.y=t.y+(i.y-t.y)*n,this}equals(t){return t.x===this.x&&t.y===this.y}fromArray(t,i=0){return this.x=t[i],this.y=t[i+1],this}toArray(t=[],i=0){return t[i]=this.x,t[i+1]=this.y,t}fromBufferAttribute(t,i){return this.x=t.getX(i),this.y=t.getY(i),this}rotateAround(t,i){let n=Math.cos(i),s=Math.sin(i),r=this.x-t.x,o=this.y-t.y;return this.x=r*n-o*s+t.x,this.y=r*s+o*n+t.y,this}random(){return this.x=Math.random(),this.y=Math.random(),this}*[Symbol.iterator](){yield this.x,yield this.y}},ni=class{constructor(t=0,i=0,n=0,s=1){this.isQuaternion=!0,this._x=t,this._y=i,this._z=n,this._w=s}static slerpFlat(t,i,n,s,r,o,a){let l=n[s+0],c=n[s+1],h=n[s+2],u=n[s+3],f=r[o+0],d=r[o+1],g=r[o+2],x=r[o+3];if(u!==x||l!==f||c!==d||h!==g){let p=l*f+c*d+h*g+u*x;p<0&&(f=-f,d=-d,g=-g,x=-x,p=-p);let m=1-a;if(p<.9995){let y=Math.acos(p),S=Math.sin(y);m=Math.sin(m*y)/S,a=Math.sin(a*y)/S,l=l*m+f*a,c=c*m+d*a,h=h*m+g*a,u=u*m+x*a}else{l=l*m+f*a,c=c*m+d*a,h=h*m+g*a,u=u*m+x*a;let y=1/Math.sqrt(l*l+c*c+h*h+u*u);l*=y,c*=y,h*=y,u*=y}}t[i]=l,t[i+1]=c,t[i+2]=h,t[i+3]=u}static multiplyQuaternionsFlat(t,i,n,s,r,o){let a=n[s],l=n[s+1],c=n[s+2],h=n[s+3],u=r[o],f=r[o+1],d=r[o+2],g=r[o+3];return t[i]=a*g+h*u+l*d-c*f,t[i+1]=l*g+h*f+c*u-a*d,t[i+2]=c*g+h*d+a*f-l*u,t[i+3]=h*g-a*u-l*f-c*d,t}get x(){return this._x}set x(t){this._x=t,this._onChangeCallback()}get y(){return this._y}set y(t){this._y=t,this._onChangeCallback()}get z(){return this._z}set z(t){this._z=t,this._onChangeCallback()}get w(){return this._w}set w(t){this._w=t,this._onChangeCallback()}set(t,i,n,s){return this._x=t,this._y=i,this._z=n,this._w=s,this._onChangeCallback(),this}clone(){return new this.constructor(this._x,this._y,this._z,this._w)}copy(t){return this._x=t.x,this._y=t.y,this._z=t.z,this._w=t.w,this._onChangeCallback(),this}setFromEuler(t,i=!0){let n=t._x,s=t._y,r=t._z,o=t._order,a=Math.cos,l=Math.sin,c=a(n/2),h=a(s/2),u=a(r/2),f=l(n/2),d=l(s/2),g=l(r/2);switch(o){case"XYZ":this._x=f*h*u+c*d*g,this._y=c*d*u-f*h*g,this._z=c*h*g+f*d*u,this._w=c*h*u-f*d*g;break;case"YXZ":this._x=f*h*u+c*d*g,this._y=c*d*u-f*h*g,this._z=c*h*g-f*d*u,this._w=c*h*u+f*d*g;break;case"ZXY":this._x=f*h*u-c*d*g,this._y=c*d*u+f*h*g,this._z=c*h*g+f*d*u,this._w=c*h*u-f*d*g;break;case"ZYX":this._x=f*h*u-c*d*g,this._y=c*d*u+f*h*g,this._z=c*h*g-f*d*u,this._w=c*h*u+f*d*g;break;case"YZX":this._x=f*h*u+c*d*g,this._y=c*d*u+f*h*g,this._z=c*h*g-f*d*u,this._w=c*h*u-f*d*g;break;case"XZY":this._x=f*h*u-c*d*g,this._y=c*d*u-f*h*g,this._z=c*h*g+f*d*u,this._w=c*h*u+f*d*g;break;default:Ct("Quaternion: .setFromEuler() encountered an unknown order: "+o)}return i===!0&&this._onChangeCallback(),this}setFromAxisAngle(t,i){let n=i/2,s=Math.sin(n);return this._x=t.x*s,this._y=t.y*s,this._z=t.z*s,this._w=Math.cos(n),this._onChangeCallback(),this}setFromRotationMatrix(t){let i=t.elements,n=i[0],s=i[4],r=i[8],o=i[1],a=i[5],l=i[9],c=i[2],h=i[6],u=i[10],f=n+a+u;if(f>0){let d=.5/Math.sqrt(f+1);this._w=.25/d,this._x=(h-l)*d,this._y=(r-c)*d,this._z=(o-s)*d}else if(n>a&&n>u){let d=2*Math.sqrt(1+n-a-u);this._w=(h-l)/d,this._x=.25*d,this._y=(s+o)/d,this._z=(r+c)/d}else if(a>u){let d=2*Math.sqrt(1+a-n-u);this._w=(r-c)/d,this._x=(s+o)/d,this._y=.25*d,this._z=(l+h)/d}else{let d=2*Math.sqrt(1+u-n-a);this._w=(o-s)/d,this._x=(r+c)/d,this._y=(l+h)/d,this._z=.25*d}return this._onChangeCallback(),this}setFromUnitVectors(t,i){let n=t.dot(i)+1;return n<1e-8?(n=0,Math.abs(t.x)>Math.abs(t.z)?(this._x=-t.y,this._y=t.x,this._z=0,this._w=n):(this._x=0,this._y=-t.z,this._z=t.y,this._w=n)):(this._x=t.y*i.z-t.z*i.y,this._y=t.z*i.x-t.x*i.z,this._z=t.x*i.y-t.y*i.x,this._w=n),this.normalize()}angleTo(t){return 2*Math.acos(Math.abs(Bt(this.dot(t),-1,1)))}rotateTowards(t,i){let n=this.angleTo(t);if(n===0)return this;let s=Math.min(1,i/n);return this.slerp(t,s),this}identity(){return this.set(0,0,0,1)}invert(){return this.conjugate()}conjugate(){return this._x*=-1,this._y*=-1,this._z*=-1,this._onChangeCallback(),this}dot(t){return this._x*t._x+this._y*t._y+this._z*t._z+this._w*t._w}lengthSq(){return this._x*this._x+this._y*this._y+this._z*this._z+this._w*this._w}length(){return Math.sqrt(this._x*this._x+this._y*this._y+this._z*this._z+this._w*this._w)}normalize(){let t=this.length();return t===0?(this._x=0,this._y=0,this._z=0,this._w=1):(t=1/t,this._x=this._x*t,this._y=this._y*t,this._z=this._z*t,this._w=this._w*t),this._onChangeCallback(),this}multiply(t){return this.multiplyQuaternions(this,t)}premultiply(t){return this.multiplyQuaternions(t,this)}multiplyQuaternions(t,i){let n=t._x,s=t._y,r=t._z,o=t._w,a=i._x,l=i._y,c=i._z,h=i._w;return this._x=n*h+o*a+s*c-r*l,this._y=s*h+o*l+r*a-n*c,this._z=r*h+o*c+n*l-s*a,this._w=o*h-n*a-s*l-r*c,this._onChangeCallback(),this}slerp(t,i){let n=t._x,s=t._y,r=t._z,o=t._w,a=this.dot(t);a<0&&(n=-n,s=-s,r=-r,o=-o,a=-a);let l=1-i;if(a<.9995){let c=Math.acos(a),h=Math.sin(c);l=Math.sin(l*c)/h,i=Math.sin(i*c)/h,this._x=this._x*l+n*i,this._y=this._y*l+s*i,this._z=this._z*l+r*i,this._w=this._w*l+o*i,this._onChangeCallback()}else this._x=this._x*l+n*i,this._y=this._y*l+s*i,this._z=this._z*l+r*i,this._w=this._w*l+o*i,this.normalize();return this}slerpQuaternions(t,i,n){return this.copy(t).slerp(i,n)}random(){let t=2*Math.PI*Math.random(),i=2*Math.PI*Math.random(),n=Math.random(),s=Math.sqrt(1-n),r=Math.sqrt(n);return this.set(s*Math.sin(t),s*Math.cos(t),r*Math.sin(i),r*Math.cos(i))}equals(t){return t._x===this._x&&t._y===this._y&&t._z===this._z&&t._w===this._w}fromArray(t,i=0){return this._x=t[i],this._y=t[i+1],this._z=t[i+2],this._w=t[i+3],this._onChangeCallback(),this}toArray(t=[],i=0){return t[i]=this._x,t[i+1]=this._y,t[i+2]=this._z,t[i+3]=this._w,t}fromBufferAttribute(t,i){return this._x=t.getX(i),this._y=t.getY(i),this._z=t.getZ(i),this._w=t.getW(i),this._onChangeCallback(),this}toJSON(){return this.toArray()}_onChange(t){return this._onChangeCallback=t,this}_onChangeCallback(){}*[Symbol.iterator](){yield this._x,yield this._y,yield this._z,yield this._w}},C=class{static{this.prototype.isVector3=!0}constructor(t=0,i=0,n=0){this.x=t,this.y=i,this.z=n}set(t,i,n){return n===void 0&&(n=this.z),this.x=t,this.y=i,this.z=n,this}setScalar(t){return this.x=t,this.y=t,this.z=t,this}setX(t){return this.x=t,this}setY(t){return this.y=t,this}setZ(t){return this.z=t,this}setComponent(t,i){switch(t){case 0:this.x=i;break;case 1:this.y=i;break;case 2:this.z=i;break;default:throw new Error("THREE.Vector3: index is out of range: "+t)}return this}getComponent(t){switch(t){case 0:return this.x;case 1:return this.y;case 2:return this.z;default:throw new Error("THREE.Vector3: index is out of range: "+t)}}clone(){return new this.constructor(this.x,this.y,this.z)}copy(t){return this.x=t.x,this.y=t.y,this.z=t.z,this}add(t){return this.x+=t.x,this.y+=t.y,this.z+=t.z,this}addScalar(t){return this.x+=t,this.y+=t,this.z+=t,this}addVectors(t,i){return this.x=t.x+i.x,this.y=t.y+i.y,this.z=t.z+i.z,this}addScaledVector(t,i){return this.x+=t.x*i,this.y+=t.y*i,this.z+=t.z*i,this}sub(t){return this.x-=t.x,this.y-=t.y,this.z-=t.z,this}subScalar(t){return this.x-=t,this.y-=t,this.z-=t,this}subVectors(t,i){return this.x=t.x-i.x,this.y=t.y-i.y,this.z=t.z-i.z,this}multiply(t){return this.x*=t.x,this.y*=t.y,this.z*=t.z,this}multiplyScalar(t){return this.x*=t,this.y*=t,this.z*=t,this}multiplyVectors(t,i){return this.x=t.x*i.x,this.y=t.y*i.y,this.z=t.z*i.z,this}applyEuler(t){return this.applyQuaternion(cg.setFromEuler(t))}applyAxisAngle(t,i){return this.applyQuaternion(cg.setFromAxisAngle(t,i))}applyMatrix3(t){let i=this.x,n=this.y,s=this.z,r=t.elements;return this.x=r[0]*i+r[3]*n+r[6]*s,this.y=r[1]*i+r[4]*n+r[7]*s,this.z=r[2]*i+r[5]*n+r[8]*s,this}applyNormalMatrix(t){return this.applyMatrix3(t).normalize()}applyMatrix4(t){let i=this.x,n=this.y,s=this.z,r=t.elements,o=1/(r[3]*i+r[7]*n+r[11]*s+r[15]);return this.x=(r[0]*i+r[4]*n+r[8]*s+r[12])*o,this.y=(r[1]*i+r[5]*n+r[9]*s+r[13])*o,this.z=(r[2]*i+r[6]*n+r[10]*s+r[14])*o,this}applyQuaternion(t){let i=this.x,n=this.y,s=this.z,r=t.x,o=t.y,a=t.z,l=t.w,c=2*(o*s-a*n),h=2*(a*i-r*s),u=2*(r*n-o*i);return this.x=i+l*c+o*u-a*h,this.y=n+l*h+a*c-r*u,this.z=s+l*u+r*h-o*c,this}project(t){return this.applyMatrix4(t.matrixWorldInverse).applyMatrix4(t.projectionMatrix)}unproject(t){return this.applyMatrix4(t.projectionMatrixInverse).applyMatrix4(t.matrixWorld)}transformDirection(t){let i=this.x,n=this.y,s=this.z,r=t.elements;return this.x=r[0]*i+r[4]*n+r[8]*s,this.y=r[1]*i+r[5]*n+r[9]*s,this.z=r[2]*i+r[6]*n+r[10]*s,this.normalize()}divide(t){return this.x/=t.x,this.y/=t.y,this.z/=t.z,this}divideScalar(t){return this.multiplyScalar(1/t)}min(t){return this.x=Math.min(this.x,t.x),this.y=Math.min(this.y,t.y),this.z=Math.min(this.z,t.z),this}max(t){return this.x=Math.max(this.x,t.x),this.y=Math.max(this.y,t.y),this.z=Math.max(this.z,t.z),this}clamp(t,i){return this.x=Bt(this.x,t.x,i.x),this.y=Bt(this.y,t.y,i.y),this.z=Bt(this.z,t.z,i.z),this}clampScalar(t,i){return this.x=Bt(this.x,t,i),this.y=Bt(this.y,t,i),this.z=Bt(this.z,t,i),this}clampLength(t,i){let n=this.length();return this.divideScalar(n||1).multiplyScalar(Bt(n,t,i))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this.z=Math.floor(this.z),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this.z=Math.ceil(this.z),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this.z=Math.round(this.z),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this.z=Math.trunc(this.z),this}negate(){return this.x=-this.x,this.y=-this.y,this.z=-this.z,this}dot(t){return this.x*t.x+this.y*t.y+this.z*t.z}lengthSq(){return this.x*this.x+this.y*this.y+this.z*this.z}length(){return Math.sqrt(this.x*this.x+this.y*this.y+this.z*this.z)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)+Math.abs(this.z)}normalize(){return this.divideScalar(this.length()||1)}setLength(t){return this.normalize().multiplyScalar(t)}lerp(t,i){return this.x+=(t.x-this.x)*i,this.y+=(t.y-this.y)*i,this.z+=(t.z-this.z)*i,this}lerpVectors(t,i,n){return this.x=t.x+(i.x-t.x)*n,this.y=t.y+(i.y-t.y)*n,this.z=t.z+(i.z-t.z)*n,this}cross(t){return this.crossVectors(this,t)}crossVectors(t,i){let n=t.x,s=t.y,r=t.z,o=i.x,a=i.y,l=i.z;return this.x=s*l-r*a,this.y=r*o-n*l,this.z=n*a-s*o,this}projectOnVector(t){let i=t.lengthSq();if(i===0)return this.set(0,0,0);let n=t.dot(this)/i;return this.copy(t).multiplyScalar(n)}projectOnPlane(t){return ef.copy(this).projectOnVector(t),this.sub(ef)}reflect(t){return this.sub(ef.copy(t).multiplyScalar(2*this.dot(t)))}angleTo(t){let i=Math.sqrt(this.lengthSq()*t.lengthSq());if(i===0)return Math.PI/2;let n=this.dot(t)/i;return Math.acos(Bt(n,-1,1))}distanceTo(t){return Math.sqrt(this.distanceToSquared(t))}distanceToSquared(t){let i=this.x-t.x,n=this.y-t.y,s=this.z-t.z;return i*i+n*n+s*s}manhattanDistanceTo(t){return Math.abs(this.x-t.x)+Math.abs(this.y-t.y)+Math.abs(this.z-t.z)}setFromSpherical(t){return this.setFromSphericalCoords(t.radius,t.phi,t.theta)}setFromSphericalCoords(t,i,n){let s=Math.sin(i)*t;return this.x=s*Math.sin(n),this.y=Math.cos(i)*t,this.z=s*Math.cos(n),this}setFromCylindrical(t){return this.setFromCylindricalCoords(t.radius,t.theta,t.y)}setFromCylindricalCoords(t,i,n){return this.x=t*Math.sin(i),this.y=n,this.z=t*Math.cos(i),this}setFromMatrixPosition(t){let i=t.elements;return this.x=i[12],this.y=i[13],this.z=i[14],this}setFromMatrixScale(t){let i=this.setFromMatrixColumn(t,0).length(),n=this.setFromMatrixColumn(t,1).length(),s=this.setFromMatrixColumn(t,2).length();return this.x=i,this.y=n,this.z=s,this}setFromMatrixColumn(t,i){return this.fromArray(t.elements,i*4)}setFromMatrix3Column(t,i){return this.fromArray(t.elements,i*3)}setFromEuler(t){return this.x=t._x,this.y=t._y,this.z=t._z,this}setFromColor(t){return this.x=t.r,this.y=t.g,this.z=t.b,this}equals(t){return t.x===this.x&&t.y===this.y&&t.z===this.z}fromArray(t,i=0){return this.x=t[i],this.y=t[i+1],this.z=t[i+2],this}toArray(t=[],i=0){return t[i]=this.x,t[i+1]=this.y,t[i+2]=this.z,t}fromBufferAttribute(t,i){return this.x=t.getX(i),this.y=t.getY(i),this.z=t.getZ(i),this}random(){return this.x=Math.random(),this.y=Math.random(),this.z=Math.random(),this}randomDirection(){let t=Math.random()*Math.PI*2,i=Math.random()*2-1,n=Math.sqrt(1-i*i);return this.x=n*Math.cos(t),this.y=i,this.z=n*Math.sin(t),this}*[Symbol.iterator](){yield this.x,yield this.y,yield this.z}},ef=new C,cg=new ni,Nt=class{static{this.prototype.isMatrix3=!0}constructor(t,i,n,s,r,o,a,l,c){this.elements=[1,0,0,0,1,0,0,0,1],t!==void 0&&this.set(t,i,n,s,r,o,a,l,c)}set(t,i,n,s,r,o,a,l,c){let h=this.elements;return h[0]=t,h[1]=s,h[2]=a,h[3]=i,h[4]=r,h[5]=l,h[6]=n,h[7]=o,h[8]=c,this}identity(){return this.set(1,0,0,0,1,0,0,0,1),this}copy(t){let i=this.elements,n=t.elements;return i[0]=n[0],i[1]=n[1],i[2]=n[2],i[3]=n[3],i[4]=n[4],i[5]=n[5],i[6]=n[6],i[7]=n[7],i[8]=n[8],this}extractBasis(t,i,n){return t.setFromMatrix3Column(this,0),i.setFromMatrix3Column(this,1),n.setFromMatrix3Column(this,2),this}setFromMatrix4(t){let i=t.elements;return this.set(i[0],i[4],i[8],i[1],i[5],i[9],i[2],i[6],i[10]),this}multiply(t){return this.multiplyMatrices(this,t)}premultiply(t){return this.multiplyMatrices(t,this)}multiplyMatrices(t,i){let n=t.elements,s=i.elements,r=this.elements,o=n[0],a=n[3],l=n[6],c=n[1],h=n[4],u=n[7],f=n[2],d=n[5],g=n[8],x=s[0],p=s[3],m=s[6],y=s[1],S=s[4],v=s[7],w=s[2],T=s[5],_=s[8];return r[0]=o*x+a*y+l*w,r[3]=o*p+a*S+l*T,r[6]=o*m+a*v+l*_,r[1]=c*x+h*y+u*w,r[4]=c*p+h*S+u*T,r[7]=c*m+h*v+u*_,r[2]=f*x+d*y+g*w,r[5]=f*p+d*S+g*T,r[8]=f*m+d*v+g*_,this}multiplyScalar(t){let i=this.elements;return i[0]*=t,i[3]*=t,i[6]*=t,i[1]*=t,i[4]*=t,i[7]*=t,i[2]*=t,i[5]*=t,i[8]*=t,this}determinant(){let t=this.elements,i=t[0],n=t[1],s=t[2],r=t[3],o=t[4],a=t[5],l=t[6],c=t[7],h=t[8];return i*o*h-i*a*c-n*r*h+n*a*l+s*r*c-s*o*l}invert(){let t=this.elements,i=t[0],n=t[1],s=t[2],r=t[3],o=t[4],a=t[5],l=t[6],c=t[7],h=t[8],u=h*o-a*c,f=a*l-h*r,d=c*r-o*l,g=i*u+n*f+s*d;if(g===0)return this.set(0,0,0,0,0,0,0,0,0);let x=1/g;return t[0]=u*x,t[1]=(s*c-h*n)*x,t[2]=(a*n-s*o)*x,t[3]=f*x,t[4]=(h*i-s*l)*x,t[5]=(s*r-a*i)*x,t[6]=d*x,t[7]=(n*l-c*i)*x,t[8]=(o*i-n*r)*x,this}transpose(){let t,i=this.elements;return t=i[1],i[1]=i[3],i[3]=t,t=i[2],i[2]=i[6],i[6]=t,t=i[5],i[5]=i[7],i[7]=t,this}getNormalMatrix(t){return this.setFromMatrix4(t).invert().transpose()}transposeIntoArray(t){let i=this.elements;return t[0]=i[0],t[1]=i[3],t[2]=i[6],t[3]=i[1],t[4]=i[4],t[5]=i[7],t[6]=i[2],t[7]=i[5],t[8]=i[8],this}setUvTransform(t,i,n,s,r,o,a){let l=Math.cos(r),c=Math.sin(r);return this.set(n*l,n*c,-n*(l*o+c*a)+o+t,-s*c,s*l,-s*(-c*o+l*a)+a+i,0,0,1),this}scale(t,i){return Ho("Matrix3: .scale() is deprecated. Use .makeScale() instead."),this.premultiply(nf.makeScale(t,i)),this}rotate(t){return Ho("Matrix3: .rotate() is deprecated. Use .makeRotation() instead."),this.premultiply(nf.makeRotation(-t)),this}translate(t,i){return Ho("Matrix3: .translate() is deprecated. Use .makeTranslation() instead."),this.premultiply(nf.makeTranslation(t,i)),this}makeTranslation(t,i){return t.isVector2?this.set(1,0,t.x,0,1,t.y,0,0,1):this.set(1,0,t,0,1,i,0,0,1),this}makeRotation(t){let i=Math.cos(t),n=Math.sin(t);return this.set(i,-n,0,n,i,0,0,0,1),this}makeScale(t,i){return this.set(t,0,0,0,i,0,0,0,1),this}equals(t){let i=this.elements,n=t.elements;for(let s=0;s<9;s++)if(i[s]!==n[s])return!1;return!0}fromArray(t,i=0){for(let n=0;n<9;n++)this.elements[n]=t[n+i];return this}toArray(t=[],i=0){let n=this.elements;return t[i]=n[0],t[i+1]=n[1],t[i+2]=n[2],t[i+3]=n[3],t[i+4]=n[4],t[i+5]=n[5],t[i+6]=n[6],t[i+7]=n[7],t[i+8]=n[8],t}clone(){return new this.constructor().fromArray(this.elements)}},nf=new Nt,hg=new Nt().set(.4123908,.3575843,.1804808,.212639,.7151687,.0721923,.0193308,.1191948,.9505322),ug=new Nt().set(3.2409699,-1.5373832,-.4986108,-.9692436,1.8759675,.0415551,.0556301,-.203977,1.0569715);function yS(){let e={enabled:!0,workingColorSpace:Vs,spaces:{},convert:function(s,r,o){return this.enabled===!1||r===o||!r||!o||(this.spaces[r].transfer===le&&(s.r=zn(s.r),s.g=zn(s.g),s.b=zn(s.b)),this.spaces[r].primaries!==this.spaces[o].primaries&&(s.applyMatrix3(this.spaces[r].toXYZ),s.applyMatrix3(this.spaces[o].fromXYZ)),this.spaces[o].transfer===le&&(s.r=Ar(s.r),s.g=Ar(s.g),s.b=Ar(s.b))),s},workingToColorSpace:function(s,r){return this.convert(s,this.workingColorSpace,r)},colorSpaceToWorking:function(s,r){return this.convert(s,r,this.workingColorSpace)},getPrimaries:function(s){return this.spaces[s].primaries},getTransfer:function(s){return s===$n?Wo:this.spaces[s].transfer},getToneMappingMode:function(s){return this.spaces[s].outputColorSpaceConfig.toneMappingMode||"standard"},getLuminanceCoefficients:function(s,r=this.workingColorSpace){return s.fromArray(this.spaces[r].luminanceCoefficients)},define:function(s){Object.assign(this.spaces,s)},_getMatrix:function(s,r,o){return s.copy(this.spaces[o].fromXYZ).multiply(this.spaces[r].toXYZ)},_getDrawingBufferColorSpace:function(s){return this.spaces[s].outputColorSpaceConfig.drawingBufferColorSpace},_getUnpackColorSpace:function(s=this.workingColorSpace){return this.spaces[s].workingColorSpaceConfig.unpackColorSpace}},t=[.64,.33,.3,.6,.15,.06],i=[.2126,.7152,.0722],n=[.3127,.329];return e.define({[Vs]:{primaries:t,whitePoint:n,transfer:Wo,toXYZ:hg,fromXYZ:ug,luminanceCoefficients:i,workingColorSpaceConfig:{unpackColorSpace:Oi},outputColorSpaceConfig:{drawingBufferColorSpace:Oi}},[Oi]:{primaries:t,whitePoint:n,transfer:le,toXYZ:hg,fromXYZ:ug,luminanceCoefficients:i,outputColorSpaceConfig:{drawingBufferColorSpace:Oi}}}),e}var Wt=yS();function zn(e){return e<.04045?e*.0773993808:Math.pow(e*.9478672986+.0521327014,2.4)}function Ar(e){return e<.0031308?e*12.92:1.055*Math.pow(e,.41666)-.055}var ur,Gl=class{static getDataURL(t,i="image/png"){if(/^data:/i.test(t.src)||typeof HTMLCanvasElement>"u")return t.src;let n;if(t instanceof HTMLCanvasElement)n=t;else{ur===void 0&&(ur=$o("canvas")),ur.width=t.width,ur.height=t.height;let s=ur.getContext("2d");t instanceof ImageData?s.putImageData(t,0,0):s.drawImage(t,0,0,t.width,t.height),n=ur}return n.toDataURL(i)}static sRGBToLinear(t){if(typeof HTMLImageElement<"u"&&t instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&t instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&t instanceof ImageBitmap){let i=$o("canvas");i.width=t.width,i.height=t.height;let n=i.getContext("2d");n.drawImage(t,0,0,t.width,t.height);let s=n.getImageData(0,0,t.width,t.height),r=s.data;for(let o=0;o<r.length;o++)r[o]=zn(r[o]/255)*255;return n.putImageData(s,0,0),i}else if(t.data){let i=t.data.slice(0);for(let n=0;n<i.length;n++)i instanceof Uint8Array||i instanceof Uint8ClampedArray?i[n]=Math.floor(zn(i[n]/255)*255):i[n]=zn(i[n]);return{data:i,width:t.width,height:t.height}}else return Ct("ImageUtils.sRGBToLinear(): Unsupported image type. No color space conversion applied."),t}},xS=0,Ir=class{constructor(t=null){this.isTextureSource=!0,Object.defineProperty(this,"id",{value:xS++}),this.uuid=Vr(),this.data=t,this.dataReady=!0,this.version=0}getSize(t){let i=this.data;return typeof HTMLVideoElement<"u"&&i instanceof HTMLVideoElement?t.set(i.videoWidth,i.videoHeight,0):typeof VideoFrame<"u"&&i instanceof VideoFrame?t.set(i.displayWidth,i.displayHeight,0):i!==null?t.set(i.width||0,i.height||0,i.depth||0):t.set(0,0,0),t}set needsUpdate(t){t===!0&&this.version++}toJSON(t){let i=t===void 0||typeof t=="string";if(!i&&t.images[this.uuid]!==void 0)return t.images[this.uuid];let n={uuid:this.uuid,url:""},s=this.data;if(s!==null){let r;if(Array.isArray(s)){r=[];for(let o=0,a=s.length;o<a;o++)s[o].isDataTexture?r.push(sf(s[o].image)):r.push(sf(s[o]))}else r=sf(s);n.url=r}return i||(t.images[this.uuid]=n),n}};function sf(e){return typeof HTMLImageElement<"u"&&e instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&e instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&e instanceof ImageBitmap?Gl.getDataURL(e):e.data?{data:Array.from(e.data),width:e.width,height:e.height,type:e.data.constructor.name}:(Ct("Texture: Unable to serialize Texture."),{})}var vS=0,rf=new C,Ei=class e extends rn{constructor(t=e.DEFAULT_IMAGE,i=e.DEFAULT_MAPPING,n=yn,s=yn,r=xi,o=Wn,a=hn,l=Bi,c=e.DEFAULT_ANISOTROPY,h=$n){super(),this.isTexture=!0,Object.defineProperty(this,"id",{value:vS++}),this.uuid=Vr(),this.name="",this.source=new Ir(t),this.mipmaps=[],this.mapping=i,this.channel=0,this.wrapS=n,this.wrapT=s,this.magFilter=r,this.minFilter=o,this.anisotropy=c,this.format=a,this.internalFormat=null,this.type=l,this.offset=new Tt(0,0),this.repeat=new Tt(1,1),this.center=new Tt(0,0),this.rotation=0,this.matrixAutoUpdate=!0,this.matrix=new Nt,this.generateMipmaps=!0,this.mipmapsAutoUpdate=!0,this.premultiplyAlpha=!1,this.flipY=!0,this.unpackAlignment=4,this.colorSpace=h,this.userData={},this.updateRanges=[],this.version=0,this.onUpdate=null,this.renderTarget=null,this.isRenderTargetTexture=!1,this.isArrayTexture=!!(t&&t.depth&&t.depth>1),this.pmremVersion=0,this.isPMREMTexture=!1,this.normalized=!1}get width(){return this.source.getSize(rf).x}get height(){return this.source.getSize(rf).y}get depth(){return this.source.getSize(rf).z}get image(){return this.source.data}set image(t){this.source.data=t}updateMatrix(){this.matrix.setUvTransform(this.offset.x,this.offset.y,this.repeat.x,this.repeat.y,this.rotation,this.center.x,this.center.y)}addUpdateRange(t,i){this.updateRanges.push({start:t,count:i})}clearUpdateRanges(){this.updateRanges.length=0}clone(){return new this.constructor().copy(this)}copy(t){return this.name=t.name,this.source=t.source,this.mipmaps=t.mipmaps.slice(0),this.mapping=t.mapping,this.channel=t.channel,this.wrapS=t.wrapS,this.wrapT=t.wrapT,this.magFilter=t.magFilter,this.minFilter=t.minFilter,this.anisotropy=t.anisotropy,this.format=t.format,this.internalFormat=t.internalFormat,this.type=t.type,this.normalized=t.normalized,this.offset.copy(t.offset),this.repeat.copy(t.repeat),this.center.copy(t.center),this.rotation=t.rotation,this.matrixAutoUpdate=t.matrixAutoUpdate,this.matrix.copy(t.matrix),this.generateMipmaps=t.generateMipmaps,this.mipmapsAutoUpdate=t.mipmapsAutoUpdate,this.premultiplyAlpha=t.premultiplyAlpha,this.flipY=t.flipY,this.unpackAlignment=t.unpackAlignment,this.colorSpace=t.colorSpace,this.renderTarget=t.renderTarget,this.isRenderTargetTexture=t.isRenderTargetTexture,this.isPMREMTexture=t.isPMREMTexture,this.isArrayTexture=t.isArrayTexture,this.userData=JSON.parse(JSON.stringify(t.userData)),this.needsUpdate=!0,this}setValues(t){for(let i in t){let n=t[i];if(n===void 0){Ct(`Texture.setValues(): parameter '${i}' has value of undefined.`);continue}let s=this[i];if(s===void 0){Ct(`Texture.setValues(): property '${i}' does not exist.`);continue}s&&n&&s.isVector2&&n.isVector2||s&&n&&s.isVector3&&n.isVector3||s&&n&&s.isMatrix3&&n.isMatrix3?s.copy(n):this[i]=n}}toJSON(t){let i=t===void 0||typeof t=="string";if(!i&&t.textures[this.uuid]!==void 0)return t.textures[this.uuid];let n={metadata:{version:4.7,type:"Texture",generator:"Texture.toJSON"},uuid:this.uuid,name:this.name,image:this.source.toJSON(t).uuid,mapping:this.mapping,channel:this.channel,repeat:[this.repeat.x,this.repeat.y],offset:[this.offset.x,this.offset.y],center:[this.center.x,this.center.y],rotation:this.rotation,wrap:[this.wrapS,this.wrapT],format:this.format,internalFormat:this.internalFormat,type:this.type,normalized:this.normalized,colorSpace:this.colorSpace,minFilter:this.minFilter,magFilter:this.magFilter,anisotropy:this.anisotropy,flipY:this.flipY,generateMipmaps:this.generateMipmaps,mipmapsAutoUpdate:this.mipmapsAutoUpdate,premultiplyAlpha:this.premultiplyAlpha,unpackAlignment:this.unpackAlignment};return Object.keys(this.userData).length>0&&(n.userData=this.userData),i||(t.textures[this.uuid]=n),n}dispose(){this.dispatchEvent({type:"dispose"})}transformUv(t){if(this.mapping!==$f)return t;if(t.applyMatrix3(this.matrix),t.x<0||t.x>1)switch(this.wrapS){case zl:t.x=t.x-Math.floor(t.x);break;case yn:t.x=t.x<0?0:1;break;case Hl:Math.abs(Math.floor(t.x)%2)===1?t.x=Math.ceil(t.x)-t.x:t.x=t.x-Math.floor(t.x);break}if(t.y<0||t.y>1)switch(this.wrapT){case zl:t.y=t.y-Math.floor(t.y);break;case yn:t.y=t.y<0?0:1;break;case Hl:Math.abs(Math.floor(t.y)%2)===1?t.y=Math.ceil(t.y)-t.y:t.y=t.y-Math.floor(t.y);break}return this.flipY&&(t.y=1-t.y),t}set needsUpdate(t){t===!0&&(this.version++,this.source.needsUpdate=!0)}set needsPMREMUpdate(t){t===!0&&this.pmremVersion++}};Ei.DEFAULT_IMAGE=null;Ei.DEFAULT_MAPPING=$f;Ei.DEFAULT_ANISOTROPY=1;var be=class{static{this.prototype.isVector4=!0}constructor(t=0,i=0,n=0,s=1){this.x=t,this.y=i,this.z=n,this.w=s}get width(){return this.z}set width(t){this.z=t}get height(){return this.w}set height(t){this.w=t}set(t,i,n,s){return this.x=t,this.y=i,this.z=n,this.w=s,this}setScalar(t){return this.x=t,this.y=t,this.z=t,this.w=t,this}setX(t){return this.x=t,this}setY(t){return this.y=t,this}setZ(t){return this.z=t,this}setW(t){return this.w=t,this}setComponent(t,i){switch(t){case 0:this.x=i;break;case 1:this.y=i;break;case 2:this.z=i;break;case 3:this.w=i;break;default:throw new Error("THREE.Vector4: index is out of range: "+t)}return this}getComponent(t){switch(t){case 0:return this.x;case 1:return this.y;case 2:return this.z;case 3:return this.w;default:throw new Error("THREE.Vector4: index is out of range: "+t)}}clone(){return new this.constructor(this.x,this.y,this.z,this.w)}copy(t){return this.x=t.x,this.y=t.y,this.z=t.z,this.w=t.w!==void 0?t.w:1,this}add(t){return this.x+=t.x,this.y+=t.y,this.z+=t.z,this.w+=t.w,this}addScalar(t){return this.x+=t,this.y+=t,this.z+=t,this.w+=t,this}addVectors(t,i){return this.x=t.x+i.x,this.y=t.y+i.y,this.z=t.z+i.z,this.w=t.w+i.w,this}addScaledVector(t,i){return this.x+=t.x*i,this.y+=t.y*i,this.z+=t.z*i,this.w+=t.w*i,this}sub(t){return this.x-=t.x,this.y-=t.y,this.z-=t.z,this.w-=t.w,this}subScalar(t){return this.x-=t,this.y-=t,this.z-=t,this.w-=t,this}subVectors(t,i){return this.x=t.x-i.x,this.y=t.y-i.y,this.z=t.z-i.z,this.w=t.w-i.w,this}multiply(t){return this.x*=t.x,this.y*=t.y,this.z*=t.z,this.w*=t.w,this}multiplyScalar(t){return this.x*=t,this.y*=t,this.z*=t,this.w*=t,this}applyMatrix4(t){let i=this.x,n=this.y,s=this.z,r=this.w,o=t.elements;return this.x=o[0]*i+o[4]*n+o[8]*s+o[12]*r,this.y=o[1]*i+o[5]*n+o[9]*s+o[13]*r,this.z=o[2]*i+o[6]*n+o[10]*s+o[14]*r,this.w=o[3]*i+o[7]*n+o[11]*s+o[15]*r,this}divide(t){return this.x/=t.x,this.y/=t.y,this.z/=t.z,this.w/=t.w,this}divideScalar(t){return this.multiplyScalar(1/t)}setAxisAngleFromQuaternion(t){this.w=2*Math.acos(t.w);let i=Math.sqrt(1-t.w*t.w);return i<1e-4?(this.x=1,this.y=0,this.z=0):(this.x=t.x/i,this.y=t.y/i,this.z=t.z/i),this}setAxisAngleFromRotationMatrix(t){let i,n,s,r,l=t.elements,c=l[0],h=l[4],u=l[8],f=l[1],d=l[5],g=l[9],x=l[2],p=l[6],m=l[10];if(Math.abs(h-f)<.01&&Math.abs(u-x)<.01&&Math.abs(g-p)<.01){if(Math.abs(h+f)<.1&&Math.abs(u+x)<.1&&Math.abs(g+p)<.1&&Math.abs(c+d+m-3)<.1)return this.set(1,0,0,0),this;i=Math.PI;let S=(c+1)/2,v=(d+1)/2,w=(m+1)/2,T=(h+f)/4,_=(u+x)/4,M=(g+p)/4;return S>v&&S>w?S<.01?(n=0,s=.707106781,r=.707106781):(n=Math.sqrt(S),s=T/n,r=_/n):v>w?v<.01?(n=.707106781,s=0,r=.707106781):(s=Math.sqrt(v),n=T/s,r=M/s):w<.01?(n=.707106781,s=.707106781,r=0):(r=Math.sqrt(w),n=_/r,s=M/r),this.set(n,s,r,i),this}let y=Math.sqrt((p-g)*(p-g)+(u-x)*(u-x)+(f-h)*(f-h));return Math.abs(y)<.001&&(y=1),this.x=(p-g)/y,this.y=(u-x)/y,this.z=(f-h)/y,this.w=Math.acos((c+d+m-1)/2),this}setFromMatrixPosition(t){let i=t.elements;return this.x=i[12],this.y=i[13],this.z=i[14],this.w=i[15],this}min(t){return this.x=Math.min(this.x,t.x),this.y=Math.min(this.y,t.y),this.z=Math.min(this.z,t.z),this.w=Math.min(this.w,t.w),this}max(t){return this.x=Math.max(this.x,t.x),this.y=Math.max(this.y,t.y),this.z=Math.max(this.z,t.z),this.w=Math.max(this.w,t.w),this}clamp(t,i){return this.x=Bt(this.x,t.x,i.x),this.y=Bt(this.y,t.y,i.y),this.z=Bt(this.z,t.z,i.z),this.w=Bt(this.w,t.w,i.w),this}clampScalar(t,i){return this.x=Bt(this.x,t,i),this.y=Bt(this.y,t,i),this.z=Bt(this.z,t,i),this.w=Bt(this.w,t,i),this}clampLength(t,i){let n=this.length();return this.divideScalar(n||1).multiplyScalar(Bt(n,t,i))}floor(){return this.x=Math.floor(this.x),this.y=Math.floor(this.y),this.z=Math.floor(this.z),this.w=Math.floor(this.w),this}ceil(){return this.x=Math.ceil(this.x),this.y=Math.ceil(this.y),this.z=Math.ceil(this.z),this.w=Math.ceil(this.w),this}round(){return this.x=Math.round(this.x),this.y=Math.round(this.y),this.z=Math.round(this.z),this.w=Math.round(this.w),this}roundToZero(){return this.x=Math.trunc(this.x),this.y=Math.trunc(this.y),this.z=Math.trunc(this.z),this.w=Math.trunc(this.w),this}negate(){return this.x=-this.x,this.y=-this.y,this.z=-this.z,this.w=-this.w,this}dot(t){return this.x*t.x+this.y*t.y+this.z*t.z+this.w*t.w}lengthSq(){return this.x*this.x+this.y*this.y+this.z*this.z+this.w*this.w}length(){return Math.sqrt(this.x*this.x+this.y*this.y+this.z*this.z+this.w*this.w)}manhattanLength(){return Math.abs(this.x)+Math.abs(this.y)+Math.abs(this.z)+Math.abs(this.w)}normalize(){return this.divideScalar(this.length()||1)}setLength(t){return this.normalize().multiplyScalar(t)}lerp(t,i){return this.x+=(t.x-this.x)*i,this.y+=(t.y-this.y)*i,this.z+=(t.z-this.z)*i,this.w+=(t.w-this.w)*i,this}lerpVectors(t,i,n){return this.x=t.x+(i.x-t.x)*n,this.y=t.y+(i.y-t.y)*n,this.z=t.z+(i.z-t.z)*n,this.w=t.w+(i.w-t.w)*n,this}equals(t){return t.x===this.x&&t.y===this.y&&t.z===this.z&&t.w===this.w}fromArray(t,i=0){return this.x=t[i],this.y=t[i+1],this.z=t[i+2],this.w=t[i+3],this}toArray(t=[],i=0){return t[i]=this.x,t[i+1]=this.y,t[i+2]=this.z,t[i+3]=this.w,t}fromBufferAttribute(t,i){return this.x=t.getX(i),this.y=t.getY(i),this.z=t.getZ(i),this.w=t.getW(i),this}random(){return this.x=Math.random(),this.y=Math.random(),this.z=Math.random(),this.w=Math.random(),this}*[Symbol.iterator](){yield this.x,yield this.y,yield this.z,yield this.w}},Wl=class extends rn{constructor(t=1,i=1,n={}){super(),n=Object.assign({generateMipmaps:!1,internalFormat:null,minFilter:xi,depthBuffer:!0,stencilBuffer:!1,resolveColorBuffer:!0,resolveDepthBuffer:!0,resolveStencilBuffer:!0,storeMultisampledColorBuffer:!0,storeMultisampledDepthBuffer:!0,storeMultisampledStencilBuffer:!0,depthTexture:null,samples:0,count:1,depth:1,multiview:!1,useArrayDepthTexture:!1},n),this.isRenderTarget=!0,this.width=t,this.height=i,this.depth=n.depth,this.scissor=new be(0,0,t,i),this.scissorTest=!1,this.viewport=new be(0,0,t,i),this.textures=[];let s=n.count;for(let r=0;r<s;r++)this.textures[r]=new Ei({width:t,height:i,depth:n.depth}),this.textures[r].isRenderTargetTexture=!0,this.textures[r].renderTarget=this;this._setTextureOptions(n),this.depthBuffer=n.depthBuffer,this.stencilBuffer=n.stencilBuffer,this.resolveColorBuffer=n.resolveColorBuffer,this.resolveDepthBuffer=n.resolveDepthBuffer,this.resolveStencilBuffer=n.resolveStencilBuffer,this.storeMultisampledColorBuffer=n.storeMultisampledColorBuffer,this.storeMultisampledDepthBuffer=n.storeMultisampledDepthBuffer,this.storeMultisampledStencilBuffer=n.storeMultisampledStencilBuffer,this._depthTexture=null,this.depthTexture=n.depthTexture,this.samples=n.samples,this.multiview=n.multiview,this.useArrayDepthTexture=n.useArrayDepthTexture}_setTextureOptions(t={}){let i={minFilter:xi,generateMipmaps:!1,flipY:!1,internalFormat:null};t.mapping!==void 0&&(i.mapping=t.mapping),t.wrapS!==void 0&&(i.wrapS=t.wrapS),t.wrapT!==void 0&&(i.wrapT=t.wrapT),t.wrapR!==void 0&&(i.wrapR=t.wrapR),t.magFilter!==void 0&&(i.magFilter=t.magFilter),t.minFilter!==void 0&&(i.minFilter=t.minFilter),t.format!==void 0&&(i.format=t.format),t.type!==void 0&&(i.type=t.type),t.anisotropy!==void 0&&(i.anisotropy=t.anisotropy),t.colorSpace!==void 0&&(i.colorSpace=t.colorSpace),t.flipY!==void 0&&(i.flipY=t.flipY),t.generateMipmaps!==void 0&&(i.generateMipmaps=t.generateMipmaps),t.mipmapsAutoUpdate!==void 0&&(i.mipmapsAutoUpdate=t.mipmapsAutoUpdate),t.internalFormat!==void 0&&(i.internalFormat=t.internalFormat);for(let n=0;n<this.textures.length;n++)this.textures[n].setValues(i)}get texture(){return this.textures[0]}set texture(t){this.textures[0]=t}set depthTexture(t){this._depthTexture!==null&&this._depthTexture.renderTarget===this&&(this._depthTexture.renderTarget=null),t!==null&&t.renderTarget===null&&(t.renderTarget=this),this._depthTexture=t}get depthTexture(){return this._depthTexture}setSize(t,i,n=1){if(this.width!==t||this.height!==i||this.depth!==n){this.width=t,this.height=i,this.depth=n;for(let s=0,r=this.textures.length;s<r;s++)this.textures[s].image.width=t,this.textures[s].image.height=i,this.textures[s].image.depth=n,this.textures[s].isData3DTexture!==!0&&(this.textures[s].isArrayTexture=this.textures[s].image.depth>1);this.dispose()}this.viewport.set(0,0,t,i),this.scissor.set(0,0,t,i)}clone(){return new this.constructor().copy(this)}copy(t){this.width=t.width,this.height=t.height,this.depth=t.depth,this.scissor.copy(t.scissor),this.scissorTest=t.scissorTest,this.viewport.copy(t.viewport),this.textures.length=0;for(let i=0,n=t.textures.length;i<n;i++){this.textures[i]=t.textures[i].clone(),this.textures[i].isRenderTargetTexture=!0,this.textures[i].renderTarget=this;let s=Object.assign({},t.textures[i].image);this.textures[i].source=new Ir(s)}if(this.depthBuffer=t.depthBuffer,this.stencilBuffer=t.stencilBuffer,this.resolveColorBuffer=t.resolveColorBuffer,this.resolveDepthBuffer=t.resolveDepthBuffer,this.resolveStencilBuffer=t.resolveStencilBuffer,this.storeMultisampledColorBuffer=t.storeMultisampledColorBuffer,this.storeMultisampledDepthBuffer=t.storeMultisampledDepthBuffer,this.storeMultisampledStencilBuffer=t.storeMultisampledStencilBuffer,t.depthTexture!==null)if(t.depthTexture.renderTarget===t){let i=t.depthTexture.clone();i.renderTarget=null,this.depthTexture=i}else this.depthTexture=t.depthTexture;else this.depthTexture=null;return this.samples=t.samples,this.multiview=t.multiview,this.useArrayDepthTexture=t.useArrayDepthTexture,this}dispose(){this.dispatchEvent({type:"dispose"})}},vi=class extends Wl{constructor(t=1,i=1,n={}){super(t,i,n),this.isWebGLRenderTarget=!0}},qo=class extends Ei{constructor(t=null,i=1,n=1,s=1){super(null),this.isDataArrayTexture=!0,this.image={data:t,width:i,height:n,depth:s},this.magFilter=ii,this.minFilter=ii,this.wrapR=yn,this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1,this.layerUpdates=new Set}copy(t){return super.copy(t),this.wrapR=t.wrapR,this}addLayerUpdate(t){this.layerUpdates.add(t)}clearLayerUpdates(){this.layerUpdates.clear()}};var Xl=class extends Ei{constructor(t=null,i=1,n=1,s=1){super(null),this.isData3DTexture=!0,this.image={data:t,width:i,height:n,depth:s},this.magFilter=ii,this.minFilter=ii,this.wrapR=yn,this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1}copy(t){return super.copy(t),this.wrapR=t.wrapR,this}};var Vt=class e{static{this.prototype.isMatrix4=!0}constructor(t,i,n,s,r,o,a,l,c,h,u,f,d,g,x,p){this.elements=[1,0,0,0,0,1,0,0,0,0,1,0,0,0,0,1],t!==void 0&&this.set(t,i,n,s,r,o,a,l,c,h,u,f,d,g,x,p)}set(t,i,n,s,r,o,a,l,c,h,u,f,d,g,x,p){let m=this.elements;return m[0]=t,m[4]=i,m[8]=n,m[12]=s,m[1]=r,m[5]=o,m[9]=a,m[13]=l,m[2]=c,m[6]=h,m[10]=u,m[14]=f,m[3]=d,m[7]=g,m[11]=x,m[15]=p,this}identity(){return this.set(1,0,0,0,0,1,0,0,0,0,1,0,0,0,0,1),this}clone(){return new e().fromArray(this.elements)}copy(t){let i=this.elements,n=t.elements;return i[0]=n[0],i[1]=n[1],i[2]=n[2],i[3]=n[3],i[4]=n[4],i[5]=n[5],i[6]=n[6],i[7]=n[7],i[8]=n[8],i[9]=n[9],i[10]=n[10],i[11]=n[11],i[12]=n[12],i[13]=n[13],i[14]=n[14],i[15]=n[15],this}copyPosition(t){let i=this.elements,n=t.elements;return i[12]=n[12],i[13]=n[13],i[14]=n[14],this}setFromMatrix3(t){let i=t.elements;return this.set(i[0],i[3],i[6],0,i[1],i[4],i[7],0,i[2],i[5],i[8],0,0,0,0,1),this}extractBasis(t,i,n){return this.determinantAffine()===0?(t.set(1,0,0),i.set(0,1,0),n.set(0,0,1),this):(t.setFromMatrixColumn(this,0),i.setFromMatrixColumn(this,1),n.setFromMatrixColumn(this,2),this)}makeBasis(t,i,n){return this.set(t.x,i.x,n.x,0,t.y,i.y,n.y,0,t.z,i.z,n.z,0,0,0,0,1),this}extractRotation(t){if(t.determinantAffine()===0)return this.identity();let i=this.elements,n=t.elements,s=1/fr.setFromMatrixColumn(t,0).length(),r=1/fr.setFromMatrixColumn(t,1).length(),o=1/fr.setFromMatrixColumn(t,2).length();return i[0]=n[0]*s,i[1]=n[1]*s,i[2]=n[2]*s,i[3]=0,i[4]=n[4]*r,i[5]=n[5]*r,i[6]=n[6]*r,i[7]=0,i[8]=n[8]*o,i[9]=n[9]*o,i[10]=n[10]*o,i[11]=0,i[12]=0,i[13]=0,i[14]=0,i[15]=1,this}makeRotationFromEuler(t){let i=this.elements,n=t.x,s=t.y,r=t.z,o=Math.cos(n),a=Math.sin(n),l=Math.cos(s),c=Math.sin(s),h=Math.cos(r),u=Math.sin(r);if(t.order==="XYZ"){let f=o*h,d=o*u,g=a*h,x=a*u;i[0]=l*h,i[4]=-l*u,i[8]=c,i[1]=d+g*c,i[5]=f-x*c,i[9]=-a*l,i[2]=x-f*c,i[6]=g+d*c,i[10]=o*l}else if(t.order==="YXZ"){let f=l*h,d=l*u,g=c*h,x=c*u;i[0]=f+x*a,i[4]=g*a-d,i[8]=o*c,i[1]=o*u,i[5]=o*h,i[9]=-a,i[2]=d*a-g,i[6]=x+f*a,i[10]=o*l}else if(t.order==="ZXY"){let f=l*h,d=l*u,g=c*h,x=c*u;i[0]=f-x*a,i[4]=-o*u,i[8]=g+d*a,i[1]=d+g*a,i[5]=o*h,i[9]=x-f*a,i[2]=-o*c,i[6]=a,i[10]=o*l}else if(t.order==="ZYX"){let f=o*h,d=o*u,g=a*h,x=a*u;i[0]=l*h,i[4]=g*c-d,i[8]=f*c+x,i[1]=l*u,i[5]=x*c+f,i[9]=d*c-g,i[2]=-c,i[6]=a*l,i[10]=o*l}else if(t.order==="YZX"){let f=o*l,d=o*c,g=a*l,x=a*c;i[0]=l*h,i[4]=x-f*u,i[8]=g*u+d,i[1]=u,i[5]=o*h,i[9]=-a*h,i[2]=-c*h,i[6]=d*u+g,i[10]=f-x*u}else if(t.order==="XZY"){let f=o*l,d=o*c,g=a*l,x=a*c;i[0]=l*h,i[4]=-u,i[8]=c*h,i[1]=f*u+x,i[5]=o*h,i[9]=d*u-g,i[2]=g*u-d,i[6]=a*h,i[10]=x*u+f}return i[3]=0,i[7]=0,i[11]=0,i[12]=0,i[13]=0,i[14]=0,i[15]=1,this}makeRotationFromQuaternion(t){return this.compose(SS,t,wS)}lookAt(t,i,n){let s=this.elements;return Ni.subVectors(t,i),Ni.lengthSq()===0&&(Ni.z=1),Ni.normalize(),es.crossVectors(n,Ni),es.lengthSq()===0&&(Math.abs(n.z)===1?Ni.x+=1e-4:Ni.z+=1e-4,Ni.normalize(),es.crossVectors(n,Ni)),es.normalize(),nl.crossVectors(Ni,es),s[0]=es.x,s[4]=nl.x,s[8]=Ni.x,s[1]=es.y,s[5]=nl.y,s[9]=Ni.y,s[2]=es.z,s[6]=nl.z,s[10]=Ni.z,this}multiply(t){return this.multiplyMatrices(this,t)}premultiply(t){return this.multiplyMatrices(t,this)}multiplyMatrices(t,i){let n=t.elements,s=i.elements,r=this.elements,o=n[0],a=n[4],l=n[8],c=n[12],h=n[1],u=n[5],f=n[9],d=n[13],g=n[2],x=n[6],p=n[10],m=n[14],y=n[3],S=n[7],v=n[11],w=n[15],T=s[0],_=s[4],M=s[8],L=s[12],A=s[1],R=s[5],P=s[9],O=s[13],N=s[2],B=s[6],V=s[10],G=s[14],tt=s[3],X=s[7],j=s[11],Q=s[15];return r[0]=o*T+a*A+l*N+c*tt,r[4]=o*_+a*R+l*B+c*X,r[8]=o*M+a*P+l*V+c*j,r[12]=o*L+a*O+l*G+c*Q,r[1]=h*T+u*A+f*N+d*tt,r[5]=h*_+u*R+f*B+d*X,r[9]=h*M+u*P+f*V+d*j,r[13]=h*L+u*O+f*G+d*Q,r[2]=g*T+x*A+p*N+m*tt,r[6]=g*_+x*R+p*B+m*X,r[10]=g*M+x*P+p*V+m*j,r[14]=g*L+x*O+p*G+m*Q,r[3]=y*T+S*A+v*N+w*tt,r[7]=y*_+S*R+v*B+w*X,r[11]=y*M+S*P+v*V+w*j,r[15]=y*L+S*O+v*G+w*Q,this}multiplyScalar(t){let i=this.elements;return i[0]*=t,i[4]*=t,i[8]*=t,i[12]*=t,i[1]*=t,i[5]*=t,i[9]*=t,i[13]*=t,i[2]*=t,i[6]*=t,i[10]*=t,i[14]*=t,i[3]*=t,i[7]*=t,i[11]*=t,i[15]*=t,this}determinant(){let t=this.elements,i=t[0],n=t[4],s=t[8],r=t[12],o=t[1],a=t[5],l=t[9],c=t[13],h=t[2],u=t[6],f=t[10],d=t[14],g=t[3],x=t[7],p=t[11],m=t[15],y=l*d-c*f,S=a*d-c*u,v=a*f-l*u,w=o*d-c*h,T=o*f-l*h,_=o*u-a*h;return i*(x*y-p*S+m*v)-n*(g*y-p*w+m*T)+s*(g*S-x*w+m*_)-r*(g*v-x*T+p*_)}determinantAffine(){let t=this.elements,i=t[0],n=t[4],s=t[8],r=t[1],o=t[5],a=t[9],l=t[2],c=t[6],h=t[10];return i*(o*h-a*c)-n*(r*h-a*l)+s*(r*c-o*l)}transpose(){let t=this.elements,i;return i=t[1],t[1]=t[4],t[4]=i,i=t[2],t[2]=t[8],t[8]=i,i=t[6],t[6]=t[9],t[9]=i,i=t[3],t[3]=t[12],t[12]=i,i=t[7],t[7]=t[13],t[13]=i,i=t[11],t[11]=t[14],t[14]=i,this}setPosition(t,i,n){let s=this.elements;return t.isVector3?(s[12]=t.x,s[13]=t.y,s[14]=t.z):(s[12]=t,s[13]=i,s[14]=n),this}invert(){let t=this.elements,i=t[0],n=t[1],s=t[2],r=t[3],o=t[4],a=t[5],l=t[6],c=t[7],h=t[8],u=t[9],f=t[10],d=t[11],g=t[12],x=t[13],p=t[14],m=t[15],y=i*a-n*o,S=i*l-s*o,v=i*c-r*o,w=n*l-s*a,T=n*c-r*a,_=s*c-r*l,M=h*x-u*g,L=h*p-f*g,A=h*m-d*g,R=u*p-f*x,P=u*m-d*x,O=f*m-d*p,N=y*O-S*P+v*R+w*A-T*L+_*M;if(N===0)return this.set(0,0,0,0,0,0,0,0,0,0,0,0,0,0,0,0);let B=1/N;return t[0]=(a*O-l*P+c*R)*B,t[1]=(s*P-n*O-r*R)*B,t[2]=(x*_-p*T+m*w)*B,t[3]=(f*T-u*_-d*w)*B,t[4]=(l*A-o*O-c*L)*B,t[5]=(i*O-s*A+r*L)*B,t[6]=(p*v-g*_-m*S)*B,t[7]=(h*_-f*v+d*S)*B,t[8]=(o*P-a*A+c*M)*B,t[9]=(n*A-i*P-r*M)*B,t[10]=(g*T-x*v+m*y)*B,t[11]=(u*v-h*T-d*y)*B,t[12]=(a*L-o*R-l*M)*B,t[13]=(i*R-n*L+s*M)*B,t[14]=(x*S-g*w-p*y)*B,t[15]=(h*w-u*S+f*y)*B,this}scale(t){let i=this.elements,n=t.x,s=t.y,r=t.z;return i[0]*=n,i[4]*=s,i[8]*=r,i[1]*=n,i[5]*=s,i[9]*=r,i[2]*=n,i[6]*=s,i[10]*=r,i[3]*=n,i[7]*=s,i[11]*=r,this}getMaxScaleOnAxis(){let t=this.elements,i=t[0]*t[0]+t[1]*t[1]+t[2]*t[2],n=t[4]*t[4]+t[5]*t[5]+t[6]*t[6],s=t[8]*t[8]+t[9]*t[9]+t[10]*t[10];return Math.sqrt(Math.max(i,n,s))}makeTranslation(t,i,n){return t.isVector3?this.set(1,0,0,t.x,0,1,0,t.y,0,0,1,t.z,0,0,0,1):this.set(1,0,0,t,0,1,0,i,0,0,1,n,0,0,0,1),this}makeRotationX(t){let i=Math.cos(t),n=Math.sin(t);return this.set(1,0,0,0,0,i,-n,0,0,n,i,0,0,0,0,1),this}makeRotationY(t){let i=Math.cos(t),n=Math.sin(t);return this.set(i,0,n,0,0,1,0,0,-n,0,i,0,0,0,0,1),this}makeRotationZ(t){let i=Math.cos(t),n=Math.sin(t);return this.set(i,-n,0,0,n,i,0,0,0,0,1,0,0,0,0,1),this}makeRotationAxis(t,i){let n=Math.cos(i),s=Math.sin(i),r=1-n,o=t.x,a=t.y,l=t.z,c=r*o,h=r*a;return this.set(c*o+n,c*a-s*l,c*l+s*a,0,c*a+s*l,h*a+n,h*l-s*o,0,c*l-s*a,h*l+s*o,r*l*l+n,0,0,0,0,1),this}makeScale(t,i,n){return this.set(t,0,0,0,0,i,0,0,0,0,n,0,0,0,0,1),this}makeShear(t,i,n,s,r,o){return this.set(1,n,r,0,t,1,o,0,i,s,1,0,0,0,0,1),this}compose(t,i,n){let s=this.elements,r=i._x,o=i._y,a=i._z,l=i._w,c=r+r,h=o+o,u=a+a,f=r*c,d=r*h,g=r*u,x=o*h,p=o*u,m=a*u,y=l*c,S=l*h,v=l*u,w=n.x,T=n.y,_=n.z;return s[0]=(1-(x+m))*w,s[1]=(d+v)*w,s[2]=(g-S)*w,s[3]=0,s[4]=(d-v)*T,s[5]=(1-(f+m))*T,s[6]=(p+y)*T,s[7]=0,s[8]=(g+S)*_,s[9]=(p-y)*_,s[10]=(1-(f+x))*_,s[11]=0,s[12]=t.x,s[13]=t.y,s[14]=t.z,s[15]=1,this}decompose(t,i,n){let s=this.elements;t.x=s[12],t.y=s[13],t.z=s[14];let r=this.determinantAffine();if(r===0)return n.set(1,1,1),i.identity(),this;let o=fr.set(s[0],s[1],s[2]).length(),a=fr.set(s[4],s[5],s[6]).length(),l=fr.set(s[8],s[9],s[10]).length();r<0&&(o=-o),en.copy(this);let c=1/o,h=1/a,u=1/l;return en.elements[0]*=c,en.elements[1]*=c,en.elements[2]*=c,en.elements[4]*=h,en.elements[5]*=h,en.elements[6]*=h,en.elements[8]*=u,en.elements[9]*=u,en.elements[10]*=u,i.setFromRotationMatrix(en),n.x=o,n.y=a,n.z=l,this}makePerspective(t,i,n,s,r,o,a=qi,l=!1){let c=this.elements,h=2*r/(i-t),u=2*r/(n-s),f=(i+t)/(i-t),d=(n+s)/(n-s),g,x;if(l)g=r/(o-r),x=o*r/(o-r);else if(a===qi)g=-(o+r)/(o-r),x=-2*o*r/(o-r);else if(a===Xo)g=-o/(o-r),x=-o*r/(o-r);else throw new Error("THREE.Matrix4.makePerspective(): Invalid coordinate system: "+a);return c[0]=h,c[4]=0,c[8]=f,c[12]=0,c[1]=0,c[5]=u,c[9]=d,c[13]=0,c[2]=0,c[6]=0,c[10]=g,c[14]=x,c[3]=0,c[7]=0,c[11]=-1,c[15]=0,this}makeOrthographic(t,i,n,s,r,o,a=qi,l=!1){let c=this.elements,h=2/(i-t),u=2/(n-s),f=-(i+t)/(i-t),d=-(n+s)/(n-s),g,x;if(l)g=1/(o-r),x=o/(o-r);else if(a===qi)g=-2/(o-r),x=-(o+r)/(o-r);else if(a===Xo)g=-1/(o-r),x=-r/(o-r);else throw new Error("THREE.Matrix4.makeOrthographic(): Invalid coordinate system: "+a);return c[0]=h,c[4]=0,c[8]=0,c[12]=f,c[1]=0,c[5]=u,c[9]=0,c[13]=d,c[2]=0,c[6]=0,c[10]=g,c[14]=x,c[3]=0,c[7]=0,c[11]=0,c[15]=1,this}equals(t){let i=this.elements,n=t.elements;for(let s=0;s<16;s++)if(i[s]!==n[s])return!1;return!0}fromArray(t,i=0){for(let n=0;n<16;n++)this.elements[n]=t[n+i];return this}toArray(t=[],i=0){let n=this.elements;return t[i]=n[0],t[i+1]=n[1],t[i+2]=n[2],t[i+3]=n[3],t[i+4]=n[4],t[i+5]=n[5],t[i+6]=n[6],t[i+7]=n[7],t[i+8]=n[8],t[i+9]=n[9],t[i+10]=n[10],t[i+11]=n[11],t[i+12]=n[12],t[i+13]=n[13],t[i+14]=n[14],t[i+15]=n[15],t}},fr=new C,en=new Vt,SS=new C(0,0,0),wS=new C(1,1,1),es=new C,nl=new C,Ni=new C,fg=new Vt,dg=new ni,xn=class e{constructor(t=0,i=0,n=0,s=e.DEFAULT_ORDER){this.isEuler=!0,this._x=t,this._y=i,this._z=n,this._order=s}get x(){return this._x}set x(t){this._x=t,this._onChangeCallback()}get y(){return this._y}set y(t){this._y=t,this._onChangeCallback()}get z(){return this._z}set z(t){this._z=t,this._onChangeCallback()}get order(){return this._order}set order(t){this._order=t,this._onChangeCallback()}set(t,i,n,s=this._order){return this._x=t,this._y=i,this._z=n,this._order=s,this._onChangeCallback(),this}clone(){return new this.constructor(this._x,this._y,this._z,this._order)}copy(t){return this._x=t._x,this._y=t._y,this._z=t._z,this._order=t._order,this._onChangeCallback(),this}setFromRotationMatrix(t,i=this._order,n=!0){let s=t.elements,r=s[0],o=s[4],a=s[8],l=s[1],c=s[5],h=s[9],u=s[2],f=s[6],d=s[10];switch(i){case"XYZ":this._y=Math.asin(Bt(a,-1,1)),Math.abs(a)<.9999999?(this._x=Math.atan2(-h,d),this._z=Math.atan2(-o,r)):(this._x=Math.atan2(f,c),this._z=0);break;case"YXZ":this._x=Math.asin(-Bt(h,-1,1)),Math.abs(h)<.9999999?(this._y=Math.atan2(a,d),this._z=Math.atan2(l,c)):(this._y=Math.atan2(-u,r),this._z=0);break;case"ZXY":this._x=Math.asin(Bt(f,-1,1)),Math.abs(f)<.9999999?(this._y=Math.atan2(-u,d),this._z=Math.atan2(-o,c)):(this._y=0,this._z=Math.atan2(l,r));break;case"ZYX":this._y=Math.asin(-Bt(u,-1,1)),Math.abs(u)<.9999999?(this._x=Math.atan2(f,d),this._z=Math.atan2(l,r)):(this._x=0,this._z=Math.atan2(-o,c));break;case"YZX":this._z=Math.asin(Bt(l,-1,1)),Math.abs(l)<.9999999?(this._x=Math.atan2(-h,c),this._y=Math.atan2(-u,r)):(this._x=0,this._y=Math.atan2(a,d));break;case"XZY":this._z=Math.asin(-Bt(o,-1,1)),Math.abs(o)<.9999999?(this._x=Math.atan2(f,c),this._y=Math.atan2(a,r)):(this._x=Math.atan2(-h,d),this._y=0);break;default:Ct("Euler: .setFromRotationMatrix() encountered an unknown order: "+i)}return this._order=i,n===!0&&this._onChangeCallback(),this}setFromQuaternion(t,i,n){return fg.makeRotationFromQuaternion(t),this.setFromRotationMatrix(fg,i,n)}setFromVector3(t,i=this._order){return this.set(t.x,t.y,t.z,i)}reorder(t){return dg.setFromEuler(this),this.setFromQuaternion(dg,t)}equals(t){return t._x===this._x&&t._y===this._y&&t._z===this._z&&t._order===this._order}fromArray(t){return this._x=t[0],this._y=t[1],this._z=t[2],t[3]!==void 0&&(this._order=t[3]),this._onChangeCallback(),this}toArray(t=[],i=0){return t[i]=this._x,t[i+1]=this._y,t[i+2]=this._z,t[i+3]=this._order,t}_onChange(t){return this._onChangeCallback=t,this}_onChangeCallback(){}*[Symbol.iterator](){yield this._x,yield this._y,yield this._z,yield this._order}};xn.DEFAULT_ORDER="XYZ";var Lr=class{constructor(){this.mask=1}set(t){this.mask=(1<<t|0)>>>0}enable(t){this.mask|=1<<t|0}enableAll(){this.mask=-1}toggle(t){this.mask^=1<<t|0}disable(t){this.mask&=~(1<<t|0)}disableAll(){this.mask=0}test(t){return(this.mask&t.mask)!==0}isEnabled(t){return(this.mask&(1<<t|0))!==0}},MS=0,pg=new C,dr=new ni,On=new Vt,sl=new C,Uo=new C,bS=new C,TS=new ni,mg=new C(1,0,0),gg=new C(0,1,0),_g=new C(0,0,1),yg={type:"added"},ES={type:"removed"},pr={type:"childadded",child:null},of={type:"childremoved",child:null},Ai=class e extends rn{constructor(){super(),this.isObject3D=!0,Object.defineProperty(this,"id",{value:MS++}),this.uuid=Vr(),this.name="",this.type="Object3D",this.parent=null,this.children=[],this.up=e.DEFAULT_UP.clone();let t=new C,i=new xn,n=new ni,s=new C(1,1,1);function r(){n.setFromEuler(i,!1)}function o(){i.setFromQuaternion(n,void 0,!1)}i._onChange(r),n._onChange(o),Object.defineProperties(this,{position:{configurable:!0,enumerable:!0,value:t},rotation:{configurable:!0,enumerable:!0,value:i},quaternion:{configurable:!0,enumerable:!0,value:n},scale:{configurable:!0,enumerable:!0,value:s},modelViewMatrix:{value:new Vt},normalMatrix:{value:new Nt}}),this.matrix=new Vt,this.matrixWorld=new Vt,this.matrixAutoUpdate=e.DEFAULT_MATRIX_AUTO_UPDATE,this.matrixWorldAutoUpdate=e.DEFAULT_MATRIX_WORLD_AUTO_UPDATE,this.matrixWorldNeedsUpdate=!1,this.layers=new Lr,this.visible=!0,this.castShadow=!1,this.receiveShadow=!1,this.frustumCulled=!0,this.renderOrder=0,this.animations=[],this.customDepthMaterial=void 0,this.customDistanceMaterial=void 0,this.static=!1,this.userData={},this.pivot=null}onBeforeShadow(){}onAfterShadow(){}onBeforeRender(){}onAfterRender(){}applyMatrix4(t){this.matrixAutoUpdate&&this.updateMatrix(),this.matrix.premultiply(t),this.matrix.decompose(this.position,this.quaternion,this.scale),this.pivot!==null&&this.position.copy(this.pivot).applyMatrix4(this.matrix).sub(this.pivot)}applyQuaternion(t){return this.quaternion.premultiply(t),this}setRotationFromAxisAngle(t,i){this.quaternion.setFromAxisAngle(t,i)}setRotationFromEuler(t){this.quaternion.setFromEuler(t,!0)}setRotationFromMatrix(t){this.quaternion.setFromRotationMatrix(t)}setRotationFromQuaternion(t){this.quaternion.copy(t)}rotateOnAxis(t,i){return dr.setFromAxisAngle(t,i),this.quaternion.multiply(dr),this}rotateOnWorldAxis(t,i){return dr.setFromAxisAngle(t,i),this.quaternion.premultiply(dr),this}rotateX(t){return this.rotateOnAxis(mg,t)}rotateY(t){return this.rotateOnAxis(gg,t)}rotateZ(t){return this.rotateOnAxis(_g,t)}translateOnAxis(t,i){return pg.copy(t).applyQuaternion(this.quaternion),this.position.add(pg.multiplyScalar(i)),this}translateX(t){return this.translateOnAxis(mg,t)}translateY(t){return this.translateOnAxis(gg,t)}translateZ(t){return this.translateOnAxis(_g,t)}localToWorld(t){return this.updateWorldMatrix(!0,!1),t.applyMatrix4(this.matrixWorld)}worldToLocal(t){return this.updateWorldMatrix(!0,!1),t.applyMatrix4(On.copy(this.matrixWorld).invert())}lookAt(t,i,n){t.isVector3?sl.copy(t):sl.set(t,i,n);let s=this.parent;this.updateWorldMatrix(!0,!1),Uo.setFromMatrixPosition(this.matrixWorld),this.isCamera||this.isLight?On.lookAt(Uo,sl,this.up):On.lookAt(sl,Uo,this.up),this.quaternion.setFromRotationMatrix(On),s&&(On.extractRotation(s.matrixWorld),dr.setFromRotationMatrix(On),this.quaternion.premultiply(dr.invert()))}add(t){if(arguments.length>1){for(let i=0;i<arguments.length;i++)this.add(arguments[i]);return this}return t===this?(Lt("Object3D.add: object can't be added as a child of itself.",t),this):(t&&t.isObject3D?(t.removeFromParent(),t.parent=this,this.children.push(t),t.dispatchEvent(yg),pr.child=t,this.dispatchEvent(pr),pr.child=null):Lt("Object3D.add: object not an instance of THREE.Object3D.",t),this)}remove(t){if(arguments.length>1){for(let n=0;n<arguments.length;n++)this.remove(arguments[n]);return this}let i=this.children.indexOf(t);return i!==-1&&(t.parent=null,this.children.splice(i,1),t.dispatchEvent(ES),of.child=t,this.dispatchEvent(of),of.child=null),this}removeFromParent(){let t=this.parent;return t!==null&&t.remove(this),this}clear(){return this.remove(...this.children)}attach(t){return this.updateWorldMatrix(!0,!1),On.copy(this.matrixWorld).invert(),t.parent!==null&&(t.parent.updateWorldMatrix(!0,!1),On.multiply(t.parent.matrixWorld)),t.applyMatrix4(On),t.removeFromParent(),t.parent=this,this.children.push(t),t.updateWorldMatrix(!1,!0),t.dispatchEvent(yg),pr.child=t,this.dispatchEvent(pr),pr.child=null,this}getObjectById(t){return this.getObjectByProperty("id",t)}getObjectByName(t){return this.getObjectByProperty("name",t)}getObjectByProperty(t,i){if(this[t]===i)return this;for(let n=0,s=this.children.length;n<s;n++){let o=this.children[n].getObjectByProperty(t,i);if(o!==void 0)return o}}getObjectsByProperty(t,i,n=[]){this[t]===i&&n.push(this);let s=this.children;for(let r=0,o=s.length;r<o;r++)s[r].getObjectsByProperty(t,i,n);return n}getWorldPosition(t){return this.updateWorldMatrix(!0,!1),t.setFromMatrixPosition(this.matrixWorld)}getWorldQuaternion(t){return this.updateWorldMatrix(!0,!1),this.matrixWorld.decompose(Uo,t,bS),t}getWorldScale(t){return this.updateWorldMatrix(!0,!1),this.matrixWorld.decompose(Uo,TS,t),t}getWorldDirection(t){this.updateWorldMatrix(!0,!1);let i=this.matrixWorld.elements;return t.set(i[8],i[9],i[10]).normalize()}raycast(){}intersectsFrustum(){return!0}traverse(t){t(this);let i=this.children;for(let n=0,s=i.length;n<s;n++)i[n].traverse(t)}traverseVisible(t){if(this.visible===!1)return;t(this);let i=this.children;for(let n=0,s=i.length;n<s;n++)i[n].traverseVisible(t)}traverseAncestors(t){let i=this.parent;i!==null&&(t(i),i.traverseAncestors(t))}updateMatrix(){this.matrix.compose(this.position,this.quaternion,this.scale);let t=this.pivot;if(t!==null){let i=t.x,n=t.y,s=t.z,r=this.matrix.elements;r[12]+=i-r[0]*i-r[4]*n-r[8]*s,r[13]+=n-r[1]*i-r[5]*n-r[9]*s,r[14]+=s-r[2]*i-r[6]*n-r[10]*s}this.matrixWorldNeedsUpdate=!0}updateMatrixWorld(t){this.matrixAutoUpdate&&this.updateMatrix(),(this.matrixWorldNeedsUpdate||t)&&(this.matrixWorldAutoUpdate===!0&&(this.parent===null?this.matrixWorld.copy(this.matrix):this.matrixWorld.multiplyMatrices(this.parent.matrixWorld,this.matrix)),this.matrixWorldNeedsUpdate=!1,t=!0);let i=this.children;for(let n=0,s=i.length;n<s;n++)i[n].updateMatrixWorld(t)}updateWorldMatrix(t,i,n=!1){let s=this.parent;if(t===!0&&s!==null&&s.updateWorldMatrix(!0,!1),this.matrixAutoUpdate&&this.updateMatrix(),(this.matrixWorldNeedsUpdate||n)&&(this.matrixWorldAutoUpdate===!0&&(this.parent===null?this.matrixWorld.copy(this.matrix):this.matrixWorld.multiplyMatrices(this.parent.matrixWorld,this.matrix)),this.matrixWorldNeedsUpdate=!1,n=!0),i===!0){let r=this.children;for(let o=0,a=r.length;o<a;o++)r[o].updateWorldMatrix(!1,!0,n)}}toJSON(t){let i=t===void 0||typeof t=="string",n={};i&&(t={geometries:{},materials:{},textures:{},images:{},shapes:{},skeletons:{},animations:{},nodes:{}},n.metadata={version:4.7,type:"Object",generator:"Object3D.toJSON"});let s={};s.uuid=this.uuid,s.type=this.type,s.name=this.name,s.castShadow=this.castShadow,s.receiveShadow=this.receiveShadow,s.visible=this.visible,s.frustumCulled=this.frustumCulled,s.renderOrder=this.renderOrder,s.static=this.static,s.matrixAutoUpdate=this.matrixAutoUpdate,Object.keys(this.userData).length>0&&(s.userData=this.userData),s.layers=this.layers.mask,s.matrix=this.matrix.toArray(),s.up=this.up.toArray(),this.pivot!==null&&(s.pivot=this.pivot.toArray()),this.morphTargetDictionary!==void 0&&(s.morphTargetDictionary=Object.assign({},this.morphTargetDictionary)),this.morphTargetInfluences!==void 0&&(s.morphTargetInfluences=this.morphTargetInfluences.slice()),this.isInstancedMesh&&(s.type="InstancedMesh",s.count=this.count,s.instanceMatrix=this.instanceMatrix.toJSON(),this.instanceColor!==null&&(s.instanceColor=this.instanceColor.toJSON())),this.isBatchedMesh&&(s.type="BatchedMesh",s.perObjectFrustumCulled=this.perObjectFrustumCulled,s.sortObjects=this.sortObjects,s.drawRanges=this._drawRanges,s.reservedRanges=this._reservedRanges,s.geometryInfo=this._geometryInfo.map(a=>({...a,boundingBox:a.boundingBox?a.boundingBox.toJSON():void 0,boundingSphere:a.boundingSphere?a.boundingSphere.toJSON():void 0})),s.instanceInfo=this._instanceInfo.map(a=>({...a})),s.availableInstanceIds=this._availableInstanceIds.slice(),s.availableGeometryIds=this._availableGeometryIds.slice(),s.nextIndexStart=this._nextIndexStart,s.nextVertexStart=this._nextVertexStart,s.geometryCount=this._geometryCount,s.maxInstanceCount=this._maxInstanceCount,s.maxVertexCount=this._maxVertexCount,s.maxIndexCount=this._maxIndexCount,s.geometryInitialized=this._geometryInitialized,s.matricesTexture=this._matricesTexture.toJSON(t),s.indirectTexture=this._indirectTexture.toJSON(t),this._colorsTexture!==null&&(s.colorsTexture=this._colorsTexture.toJSON(t)),this.boundingSphere!==null&&(s.boundingSphere=this.boundingSphere.toJSON()),this.boundingBox!==null&&(s.boundingBox=this.boundingBox.toJSON()));function r(a,l){return a[l.uuid]===void 0&&(a[l.uuid]=l.toJSON(t)),l.uuid}if(this.isScene)this.background&&(this.background.isColor?s.background=this.background.toJSON():this.background.isTexture&&(s.background=this.background.toJSON(t).uuid)),this.environment&&this.environment.isTexture&&this.environment.isRenderTargetTexture!==!0&&(s.environment=this.environment.toJSON(t).uuid);else if(this.isMesh||this.isLine||this.isPoints){s.geometry=r(t.geometries,this.geometry);let a=this.geometry.parameters;if(a!==void 0&&a.shapes!==void 0){let l=a.shapes;if(Array.isArray(l))for(let c=0,h=l.length;c<h;c++){let u=l[c];r(t.shapes,u)}else r(t.shapes,l)}}if(this.isSkinnedMesh&&(s.bindMode=this.bindMode,s.bindMatrix=this.bindMatrix.toArray(),this.skeleton!==void 0&&(r(t.skeletons,this.skeleton),s.skeleton=this.skeleton.uuid)),this.material!==void 0)if(Array.isArray(this.material)){let a=[];for(let l=0,c=this.material.length;l<c;l++)a.push(r(t.materials,this.material[l]));s.material=a}else s.material=r(t.materials,this.material);if(this.children.length>0){s.children=[];for(let a=0;a<this.children.length;a++)s.children.push(this.children[a].toJSON(t).object)}if(this.animations.length>0){s.animations=[];for(let a=0;a<this.animations.length;a++){let l=this.animations[a];s.animations.push(r(t.animations,l))}}if(i){let a=o(t.geometries),l=o(t.materials),c=o(t.textures),h=o(t.images),u=o(t.shapes),f=o(t.skeletons),d=o(t.animations),g=o(t.nodes);a.length>0&&(n.geometries=a),l.length>0&&(n.materials=l),c.length>0&&(n.textures=c),h.length>0&&(n.images=h),u.length>0&&(n.shapes=u),f.length>0&&(n.skeletons=f),d.length>0&&(n.animations=d),g.length>0&&(n.nodes=g)}return n.object=s,n;function o(a){let l=[];for(let c in a){let h=a[c];delete h.metadata,l.push(h)}return l}}clone(t){return new this.constructor().copy(this,t)}copy(t,i=!0){if(this.name=t.name,this.up.copy(t.up),this.position.copy(t.position),this.rotation.order=t.rotation.order,this.quaternion.copy(t.quaternion),this.scale.copy(t.scale),this.pivot=t.pivot!==null?t.pivot.clone():null,this.matrix.copy(t.matrix),this.matrixWorld.copy(t.matrixWorld),this.matrixAutoUpdate=t.matrixAutoUpdate,this.matrixWorldAutoUpdate=t.matrixWorldAutoUpdate,this.matrixWorldNeedsUpdate=t.matrixWorldNeedsUpdate,this.layers.mask=t.layers.mask,this.visible=t.visible,this.castShadow=t.castShadow,this.receiveShadow=t.receiveShadow,this.frustumCulled=t.frustumCulled,this.renderOrder=t.renderOrder,this.static=t.static,this.animations=t.animations.slice(),this.userData=JSON.parse(JSON.stringify(t.userData)),i===!0)for(let n=0;n<t.children.length;n++){let s=t.children[n];this.add(s.clone())}return this}dispose(){this.dispatchEvent({type:"dispose"})}};Ai.DEFAULT_UP=new C(0,1,0);Ai.DEFAULT_MATRIX_AUTO_UPDATE=!0;Ai.DEFAULT_MATRIX_WORLD_AUTO_UPDATE=!0;var ee=class extends Ai{constructor(){super(),this.isGroup=!0,this.type="Group"}},AS={type:"move"},Nr=class{constructor(){this._targetRay=null,this._grip=null,this._hand=null}getHandSpace(){return this._hand===null&&(this._hand=new ee,this._hand.matrixAutoUpdate=!1,this._hand.visible=!1,this._hand.joints={},this._hand.inputState={pinching:!1}),this._hand}getTargetRaySpace(){return this._targetRay===null&&(this._targetRay=new ee,this._targetRay.matrixAutoUpdate=!1,this._targetRay.visible=!1,this._targetRay.hasLinearVelocity=!1,this._targetRay.linearVelocity=new C,this._targetRay.hasAngularVelocity=!1,this._targetRay.angularVelocity=new C),this._targetRay}getGripSpace(){return this._grip===null&&(this._grip=new ee,this._grip.matrixAutoUpdate=!1,this._grip.visible=!1,this._grip.hasLinearVelocity=!1,this._grip.linearVelocity=new C,this._grip.hasAngularVelocity=!1,this._grip.angularVelocity=new C,this._grip.eventsEnabled=!1),this._grip}dispatchEvent(t){return this._targetRay!==null&&this._targetRay.dispatchEvent(t),this._grip!==null&&this._grip.dispatchEvent(t),this._hand!==null&&this._hand.dispatchEvent(t),this}connect(t){if(t&&t.hand){let i=this._hand;if(i)for(let n of t.hand.values())this._getHandJoint(i,n)}return this.dispatchEvent({type:"connected",data:t}),this}disconnect(t){return this.dispatchEvent({type:"disconnected",data:t}),this._targetRay!==null&&(this._targetRay.visible=!1),this._grip!==null&&(this._grip.visible=!1),this._hand!==null&&(this._hand.visible=!1),this}update(t,i,n){let s=null,r=null,o=null,a=this._targetRay,l=this._grip,c=this._hand;if(t&&i.session.visibilityState!=="visible-blurred"){if(c&&t.hand){o=!0;for(let x of t.hand.values()){let p=i.getJointPose(x,n),m=this._getHandJoint(c,x);p!==null&&(m.matrix.fromArray(p.transform.matrix),m.matrix.decompose(m.position,m.quaternion,m.scale),m.matrixWorldNeedsUpdate=!0,m.jointRadius=p.radius),m.visible=p!==null}let h=c.joints["index-finger-tip"],u=c.joints["thumb-tip"],f=h.position.distanceTo(u.position),d=.02,g=.005;c.inputState.pinching&&f>d+g?(c.inputState.pinching=!1,this.dispatchEvent({type:"pinchend",handedness:t.handedness,target:this})):!c.inputState.pinching&&f<=d-g&&(c.inputState.pinching=!0,this.dispatchEvent({type:"pinchstart",handedness:t.handedness,target:this}))}else l!==null&&t.gripSpace&&(r=i.getPose(t.gripSpace,n),r!==null&&(l.matrix.fromArray(r.transform.matrix),l.matrix.decompose(l.position,l.quaternion,l.scale),l.matrixWorldNeedsUpdate=!0,r.linearVelocity?(l.hasLinearVelocity=!0,l.linearVelocity.copy(r.linearVelocity)):l.hasLinearVelocity=!1,r.angularVelocity?(l.hasAngularVelocity=!0,l.angularVelocity.copy(r.angularVelocity)):l.hasAngularVelocity=!1,l.eventsEnabled&&l.dispatchEvent({type:"gripUpdated",data:t,target:this})));a!==null&&(s=i.getPose(t.targetRaySpace,n),s===null&&r!==null&&(s=r),s!==null&&(a.matrix.fromArray(s.transform.matrix),a.matrix.decompose(a.position,a.quaternion,a.scale),a.matrixWorldNeedsUpdate=!0,s.linearVelocity?(a.hasLinearVelocity=!0,a.linearVelocity.copy(s.linearVelocity)):a.hasLinearVelocity=!1,s.angularVelocity?(a.hasAngularVelocity=!0,a.angularVelocity.copy(s.angularVelocity)):a.hasAngularVelocity=!1,this.dispatchEvent(AS)))}return a!==null&&(a.visible=s!==null),l!==null&&(l.visible=r!==null),c!==null&&(c.visible=o!==null),this}_getHandJoint(t,i){if(t.joints[i.jointName]===void 0){let n=new ee;n.matrixAutoUpdate=!1,n.visible=!1,t.joints[i.jointName]=n,t.add(n)}return t.joints[i.jointName]}},M_={aliceblue:15792383,antiquewhite:16444375,aqua:65535,aquamarine:8388564,azure:15794175,beige:16119260,bisque:16770244,black:0,blanchedalmond:16772045,blue:255,blueviolet:9055202,brown:10824234,burlywood:14596231,cadetblue:6266528,chartreuse:8388352,chocolate:13789470,coral:16744272,cornflowerblue:6591981,cornsilk:16775388,crimson:14423100,cyan:65535,darkblue:139,darkcyan:35723,darkgoldenrod:12092939,darkgray:11119017,darkgreen:25600,darkgrey:11119017,darkkhaki:12433259,darkmagenta:9109643,darkolivegreen:5597999,darkorange:16747520,darkorchid:10040012,darkred:9109504,darksalmon:15308410,darkseagreen:9419919,darkslateblue:4734347,darkslategray:3100495,darkslategrey:3100495,darkturquoise:52945,darkviolet:9699539,deeppink:16716947,deepskyblue:49151,dimgray:6908265,dimgrey:6908265,dodgerblue:2003199,firebrick:11674146,floralwhite:16775920,forestgreen:2263842,fuchsia:16711935,gainsboro:14474460,ghostwhite:16316671,gold:16766720,goldenrod:14329120,gray:8421504,green:32768,greenyellow:11403055,grey:8421504,honeydew:15794160,hotpink:16738740,indianred:13458524,indigo:4915330,ivory:16777200,khaki:15787660,lavender:15132410,lavenderblush:16773365,lawngreen:8190976,lemonchiffon:16775885,lightblue:11393254,lightcoral:15761536,lightcyan:14745599,lightgoldenrodyellow:16448210,lightgray:13882323,lightgreen:9498256,lightgrey:13882323,lightpink:16758465,lightsalmon:16752762,lightseagreen:2142890,lightskyblue:8900346,lightslategray:7833753,lightslategrey:7833753,lightsteelblue:11584734,lightyellow:16777184,lime:65280,limegreen:3329330,linen:16445670,magenta:16711935,maroon:8388608,mediumaquamarine:6737322,mediumblue:205,mediumorchid:12211667,mediumpurple:9662683,mediumseagreen:3978097,mediumslateblue:8087790,mediumspringgreen:64154,mediumturquoise:4772300,mediumvioletred:13047173,midnightblue:1644912,mintcream:16121850,mistyrose:16770273,moccasin:16770229,navajowhite:16768685,navy:128,oldlace:16643558,olive:8421376,olivedrab:7048739,orange:16753920,orangered:16729344,orchid:14315734,palegoldenrod:15657130,palegreen:10025880,paleturquoise:11529966,palevioletred:14381203,papayawhip:16773077,peachpuff:16767673,peru:13468991,pink:16761035,plum:14524637,powderblue:11591910,purple:8388736,rebeccapurple:6697881,red:16711680,rosybrown:12357519,royalblue:4286945,saddlebrown:9127187,salmon:16416882,sandybrown:16032864,seagreen:3050327,seashell:16774638,sienna:10506797,silver:12632256,skyblue:8900331,slateblue:6970061,slategray:7372944,slategrey:7372944,snow:16775930,springgreen:65407,steelblue:4620980,tan:13808780,teal:32896,thistle:14204888,tomato:16737095,turquoise:4251856,violet:15631086,wheat:16113331,white:16777215,whitesmoke:16119285,yellow:16776960,yellowgreen:10145074},is={h:0,s:0,l:0},rl={h:0,s:0,l:0};function af(e,t,i){return i<0&&(i+=1),i>1&&(i-=1),i<1/6?e+(t-e)*6*i:i<1/2?t:i<2/3?e+(t-e)*6*(2/3-i):e}var Xt=class{constructor(t,i,n){return this.isColor=!0,this.r=1,this.g=1,this.b=1,this.set(t,i,n)}set(t,i,n){if(i===void 0&&n===void 0){let s=t;s&&s.isColor?this.copy(s):typeof s=="number"?this.setHex(s):typeof s=="string"&&this.setStyle(s)}else this.setRGB(t,i,n);return this}setScalar(t){return this.r=t,this.g=t,this.b=t,this}setHex(t,i=Oi){return t=Math.floor(t),this.r=(t>>16&255)/255,this.g=(t>>8&255)/255,this.b=(t&255)/255,Wt.colorSpaceToWorking(this,i),this}setRGB(t,i,n,s=Wt.workingColorSpace){return this.r=t,this.g=i,this.b=n,Wt.colorSpaceToWorking(this,s),this}setHSL(t,i,n,s=Wt.workingColorSpace){if(t=ad(t,1),i=Bt(i,0,1),n=Bt(n,0,1),i===0)this.r=this.g=this.b=n;else{let r=n<=.5?n*(1+i):n+i-n*i,o=2*n-r;this.r=af(o,r,t+1/3),this.g=af(o,r,t),this.b=af(o,r,t-1/3)}return Wt.colorSpaceToWorking(this,s),this}setStyle(t,i=Oi){function n(r){r!==void 0&&parseFloat(r)<1&&Ct("Color: Alpha component of "+t+" will be ignored.")}let s;if(s=/^(\w+)\(([^\)]*)\)/.exec(t)){let r,o=s[1],a=s[2];switch(o){case"rgb":case"rgba":if(r=/^\s*(\d+)\s*,\s*(\d+)\s*,\s*(\d+)\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(a))return n(r[4]),this.setRGB(Math.min(255,parseInt(r[1],10))/255,Math.min(255,parseInt(r[2],10))/255,Math.min(255,parseInt(r[3],10))/255,i);if(r=/^\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(a))return n(r[4]),this.setRGB(Math.min(100,parseFloat(r[1]))/100,Math.min(100,parseFloat(r[2]))/100,Math.min(100,parseFloat(r[3]))/100,i);break;case"hsl":case"hsla":if(r=/^\s*([+-]?(?:\d+(?:\.\d+)?|\.\d+))\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*,\s*(\d+(?:\.\d+)?|\.\d+)\%\s*(?:,\s*(\d+(?:\.\d+)?|\.\d+)\s*)?$/.exec(a))return n(r[4]),this.setHSL(parseFloat(r[1])/360,parseFloat(r[2])/100,parseFloat(r[3])/100,i);break;default:Ct("Color: Unknown color model "+t)}}else if(s=/^\#([A-Fa-f\d]+)$/.exec(t)){let r=s[1],o=r.length;if(o===3)return this.setRGB(parseInt(r.charAt(0),16)/15,parseInt(r.charAt(1),16)/15,parseInt(r.charAt(2),16)/15,i);if(o===6)return this.setHex(parseInt(r,16),i);Ct("Color: Invalid hex color "+t)}else if(t&&t.length>0)return this.setColorName(t,i);return this}setColorName(t,i=Oi){let n=M_[t.toLowerCase()];return n!==void 0?this.setHex(n,i):Ct("Color: Unknown color "+t),this}clone(){return new this.constructor(this.r,this.g,this.b)}copy(t){return this.r=t.r,this.g=t.g,this.b=t.b,this}copySRGBToLinear(t){return this.r=zn(t.r),this.g=zn(t.g),this.b=zn(t.b),this}copyLinearToSRGB(t){return this.r=Ar(t.r),this.g=Ar(t.g),this.b=Ar(t.b),this}convertSRGBToLinear(){return this.copySRGBToLinear(this),this}convertLinearToSRGB(){return this.copyLinearToSRGB(this),this}getHex(t=Oi){return Wt.workingToColorSpace(fi.copy(this),t),Math.round(Bt(fi.r*255,0,255))*65536+Math.round(Bt(fi.g*255,0,255))*256+Math.round(Bt(fi.b*255,0,255))}getHexString(t=Oi){return("000000"+this.getHex(t).toString(16)).slice(-6)}getHSL(t,i=Wt.workingColorSpace){Wt.workingToColorSpace(fi.copy(this),i);let n=fi.r,s=fi.g,r=fi.b,o=Math.max(n,s,r),a=Math.min(n,s,r),l,c,h=(a+o)/2;if(a===o)l=0,c=0;else{let u=o-a;switch(c=h<=.5?u/(o+a):u/(2-o-a),o){case n:l=(s-r)/u+(s<r?6:0);break;case s:l=(r-n)/u+2;break;case r:l=(n-s)/u+4;break}l/=6}return t.h=l,t.s=c,t.l=h,t}getRGB(t,i=Wt.workingColorSpace){return Wt.workingToColorSpace(fi.copy(this),i),t.r=fi.r,t.g=fi.g,t.b=fi.b,t}getStyle(t=Oi){Wt.workingToColorSpace(fi.copy(this),t);let i=fi.r,n=fi.g,s=fi.b;return t!==Oi?`color(${t} ${i.toFixed(3)} ${n.toFixed(3)} ${s.toFixed(3)})`:`rgb(${Math.round(i*255)},${Math.round(n*255)},${Math.round(s*255)})`}offsetHSL(t,i,n){return this.getHSL(is),this.setHSL(is.h+t,is.s+i,is.l+n)}add(t){return this.r+=t.r,this.g+=t.g,this.b+=t.b,this}addColors(t,i){return this.r=t.r+i.r,this.g=t.g+i.g,this.b=t.b+i.b,this}addScalar(t){return this.r+=t,this.g+=t,this.b+=t,this}sub(t){return this.r=Math.max(0,this.r-t.r),this.g=Math.max(0,this.g-t.g),this.b=Math.max(0,this.b-t.b),this}multiply(t){return this.r*=t.r,this.g*=t.g,this.b*=t.b,this}multiplyScalar(t){return this.r*=t,this.g*=t,this.b*=t,this}lerp(t,i){return this.r+=(t.r-this.r)*i,this.g+=(t.g-this.g)*i,this.b+=(t.b-this.b)*i,this}lerpColors(t,i,n){return this.r=t.r+(i.r-t.r)*n,this.g=t.g+(i.g-t.g)*n,this.b=t.b+(i.b-t.b)*n,this}lerpHSL(t,i){this.getHSL(is),t.getHSL(rl);let n=Vo(is.h,rl.h,i),s=Vo(is.s,rl.s,i),r=Vo(is.l,rl.l,i);return this.setHSL(n,s,r),this}setFromVector3(t){return this.r=t.x,this.g=t.y,this.b=t.z,this}applyMatrix3(t){let i=this.r,n=this.g,s=this.b,r=t.elements;return this.r=r[0]*i+r[3]*n+r[6]*s,this.g=r[1]*i+r[4]*n+r[7]*s,this.b=r[2]*i+r[5]*n+r[8]*s,this}equals(t){return t.r===this.r&&t.g===this.g&&t.b===this.b}fromArray(t,i=0){return this.r=t[i],this.g=t[i+1],this.b=t[i+2],this}toArray(t=[],i=0){return t[i]=this.r,t[i+1]=this.g,t[i+2]=this.b,t}fromBufferAttribute(t,i){return this.r=t.getX(i),this.g=t.getY(i),this.b=t.getZ(i),this}toJSON(){return this.getHex()}*[Symbol.iterator](){yield this.r,yield this.g,yield this.b}},fi=new Xt;Xt.NAMES=M_;var Dr=class extends Ai{constructor(){super(),this.isScene=!0,this.type="Scene",this.background=null,this.environment=null,this.fog=null,this.backgroundBlurriness=0,this.backgroundIntensity=1,this.backgroundRotation=new xn,this.environmentIntensity=1,this.environmentRotation=new xn,this.overrideMaterial=null,typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("observe",{detail:this}))}copy(t,i){return super.copy(t,i),this.background=t.background!==null?t.background.clone():null,this.environment=t.environment!==null?t.environment.clone():null,this.fog=t.fog!==null?t.fog.clone():null,this.backgroundBlurriness=t.backgroundBlurriness,this.backgroundIntensity=t.backgroundIntensity,this.backgroundRotation.copy(t.backgroundRotation),this.environmentIntensity=t.environmentIntensity,this.environmentRotation.copy(t.environmentRotation),this.overrideMaterial=t.overrideMaterial!==null?t.overrideMaterial.clone():null,this.matrixAutoUpdate=t.matrixAutoUpdate,this}toJSON(t){let i=super.toJSON(t);return this.fog!==null&&(i.object.fog=this.fog.toJSON()),i.object.backgroundBlurriness=this.backgroundBlurriness,i.object.backgroundIntensity=this.backgroundIntensity,i.object.backgroundRotation=this.backgroundRotation.toArray(),i.object.environmentIntensity=this.environmentIntensity,i.object.environmentRotation=this.environmentRotation.toArray(),i}},nn=new C,Un=new C,lf=new C,Fn=new C,mr=new C,gr=new C,xg=new C,cf=new C,hf=new C,uf=new C,ff=new be,df=new be,pf=new be,$e=class e{constructor(t=new C,i=new C,n=new C){this.a=t,this.b=i,this.c=n}static getNormal(t,i,n,s){s.subVectors(n,i),nn.subVectors(t,i),s.cross(nn);let r=s.lengthSq();return r>0?s.multiplyScalar(1/Math.sqrt(r)):s.set(0,0,0)}static getBarycoord(t,i,n,s,r){nn.subVectors(s,i),Un.subVectors(n,i),lf.subVectors(t,i);let o=nn.dot(nn),a=nn.dot(Un),l=nn.dot(lf),c=Un.dot(Un),h=Un.dot(lf),u=o*c-a*a;if(u===0)return r.set(0,0,0),null;let f=1/u,d=(c*l-a*h)*f,g=(o*h-a*l)*f;return r.set(1-d-g,g,d)}static containsPoint(t,i,n,s){return this.getBarycoord(t,i,n,s,Fn)===null?!1:Fn.x>=0&&Fn.y>=0&&Fn.x+Fn.y<=1}static getInterpolation(t,i,n,s,r,o,a,l){return this.getBarycoord(t,i,n,s,Fn)===null?(l.x=0,l.y=0,"z"in l&&(l.z=0),"w"in l&&(l.w=0),null):(l.setScalar(0),l.addScaledVector(r,Fn.x),l.addScaledVector(o,Fn.y),l.addScaledVector(a,Fn.z),l)}static getInterpolatedAttribute(t,i,n,s,r,o){return ff.setScalar(0),df.setScalar(0),pf.setScalar(0),ff.fromBufferAttribute(t,i),df.fromBufferAttribute(t,n),pf.fromBufferAttribute(t,s),o.setScalar(0),o.addScaledVector(ff,r.x),o.addScaledVector(df,r.y),o.addScaledVector(pf,r.z),o}static isFrontFacing(t,i,n,s){return nn.subVectors(n,i),Un.subVectors(t,i),nn.cross(Un).dot(s)<0}set(t,i,n){return this.a.copy(t),this.b.copy(i),this.c.copy(n),this}setFromPointsAndIndices(t,i,n,s){return this.a.copy(t[i]),this.b.copy(t[n]),this.c.copy(t[s]),this}setFromAttributeAndIndices(t,i,n,s){return this.a.fromBufferAttribute(t,i),this.b.fromBufferAttribute(t,n),this.c.fromBufferAttribute(t,s),this}clone(){return new this.constructor().copy(this)}copy(t){return this.a.copy(t.a),this.b.copy(t.b),this.c.copy(t.c),this}getArea(){return nn.subVectors(this.c,this.b),Un.subVectors(this.a,this.b),nn.cross(Un).length()*.5}getMidpoint(t){return t.addVectors(this.a,this.b).add(this.c).multiplyScalar(1/3)}getNormal(t){return e.getNormal(this.a,this.b,this.c,t)}getPlane(t){return t.setFromCoplanarPoints(this.a,this.b,this.c)}getBarycoord(t,i){return e.getBarycoord(t,this.a,this.b,this.c,i)}getInterpolation(t,i,n,s,r){return e.getInterpolation(t,this.a,this.b,this.c,i,n,s,r)}containsPoint(t){return e.containsPoint(t,this.a,this.b,this.c)}isFrontFacing(t){return e.isFrontFacing(this.a,this.b,this.c,t)}intersectsBox(t){return t.intersectsTriangle(this)}closestPointToPoint(t,i){let n=this.a,s=this.b,r=this.c,o,a;mr.subVectors(s,n),gr.subVectors(r,n),cf.subVectors(t,n);let l=mr.dot(cf),c=gr.dot(cf);if(l<=0&&c<=0)return i.copy(n);hf.subVectors(t,s);let h=mr.dot(hf),u=gr.dot(hf);if(h>=0&&u<=h)return i.copy(s);let f=l*u-h*c;if(f<=0&&l>=0&&h<=0&&l-h>0)return o=l/(l-h),i.copy(n).addScaledVector(mr,o);uf.subVectors(t,r);let d=mr.dot(uf),g=gr.dot(uf);if(g>=0&&d<=g)return i.copy(r);let x=d*c-l*g;if(x<=0&&c>=0&&g<=0)return a=c/(c-g),i.copy(n).addScaledVector(gr,a);let p=h*g-d*u;if(p<=0&&u-h>=0&&d-g>=0)return xg.subVectors(r,s),a=(u-h)/(u-h+(d-g)),i.copy(s).addScaledVector(xg,a);let m=1/(p+x+f);return o=x*m,a=f*m,i.copy(n).addScaledVector(mr,o).addScaledVector(gr,a)}equals(t){return t.a.equals(this.a)&&t.b.equals(this.b)&&t.c.equals(this.c)}},Ce=class{constructor(t=new C(1/0,1/0,1/0),i=new C(-1/0,-1/0,-1/0)){this.isBox3=!0,this.min=t,this.max=i}set(t,i){return this.min.copy(t),this.max.copy(i),this}setFromArray(t){this.makeEmpty();for(let i=0,n=t.length;i<n;i+=3)this.expandByPoint(sn.fromArray(t,i));return this}setFromBufferAttribute(t){this.makeEmpty();for(let i=0,n=t.count;i<n;i++)this.expandByPoint(sn.fromBufferAttribute(t,i));return this}setFromPoints(t){this.makeEmpty();for(let i=0,n=t.length;i<n;i++)this.expandByPoint(t[i]);return this}setFromCenterAndSize(t,i){let n=sn.copy(i).multiplyScalar(.5);return this.min.copy(t).sub(n),this.max.copy(t).add(n),this}setFromObject(t,i=!1){return this.makeEmpty(),this.expandByObject(t,i)}clone(){return new this.constructor().copy(this)}copy(t){return this.min.copy(t.min),this.max.copy(t.max),this}makeEmpty(){return this.min.x=this.min.y=this.min.z=1/0,this.max.x=this.max.y=this.max.z=-1/0,this}isEmpty(){return this.max.x<this.min.x||this.max.y<this.min.y||this.max.z<this.min.z}getCenter(t){return this.isEmpty()?t.set(0,0,0):t.addVectors(this.min,this.max).multiplyScalar(.5)}getSize(t){return this.isEmpty()?t.set(0,0,0):t.subVectors(this.max,this.min)}expandByPoint(t){return this.min.min(t),this.max.max(t),this}expandByVector(t){return this.min.sub(t),this.max.add(t),this}expandByScalar(t){return this.min.addScalar(-t),this.max.addScalar(t),this}expandByObject(t,i=!1){t.updateWorldMatrix(!1,!1);let n=t.geometry;if(n!==void 0){let r=n.getAttribute("position");if(i===!0&&r!==void 0&&t.isInstancedMesh!==!0&&t.isBatchedMesh!==!0)for(let o=0,a=r.count;o<a;o++)t.isMesh===!0?t.getVertexPosition(o,sn):sn.fromBufferAttribute(r,o),sn.applyMatrix4(t.matrixWorld),this.expandByPoint(sn);else t.boundingBox!==void 0?(t.boundingBox===null&&t.computeBoundingBox(),ol.copy(t.boundingBox)):(n.boundingBox===null&&n.computeBoundingBox(),ol.copy(n.boundingBox)),ol.applyMatrix4(t.matrixWorld),this.union(ol)}let s=t.children;for(let r=0,o=s.length;r<o;r++)this.expandByObject(s[r],i);return this}containsPoint(t){return t.x>=this.min.x&&t.x<=this.max.x&&t.y>=this.min.y&&t.y<=this.max.y&&t.z>=this.min.z&&t.z<=this.max.z}containsBox(t){return this.min.x<=t.min.x&&t.max.x<=this.max.x&&this.min.y<=t.min.y&&t.max.y<=this.max.y&&this.min.z<=t.min.z&&t.max.z<=this.max.z}getParameter(t,i){return i.set((t.x-this.min.x)/(this.max.x-this.min.x),(t.y-this.min.y)/(this.max.y-this.min.y),(t.z-this.min.z)/(this.max.z-this.min.z))}intersectsBox(t){return t.max.x>=this.min.x&&t.min.x<=this.max.x&&t.max.y>=this.min.y&&t.min.y<=this.max.y&&t.max.z>=this.min.z&&t.min.z<=this.max.z}intersectsSphere(t){return this.clampPoint(t.center,sn),sn.distanceToSquared(t.center)<=t.radius*t.radius}intersectsPlane(t){let i,n;return t.normal.x>0?(i=t.normal.x*this.min.x,n=t.normal.x*this.max.x):(i=t.normal.x*this.max.x,n=t.normal.x*this.min.x),t.normal.y>0?(i+=t.normal.y*this.min.y,n+=t.normal.y*this.max.y):(i+=t.normal.y*this.max.y,n+=t.normal.y*this.min.y),t.normal.z>0?(i+=t.normal.z*this.min.z,n+=t.normal.z*this.max.z):(i+=t.normal.z*this.max.z,n+=t.normal.z*this.min.z),i<=-t.constant&&n>=-t.constant}intersectsTriangle(t){if(this.isEmpty())return!1;this.getCenter(Fo),al.subVectors(this.max,Fo),_r.subVectors(t.a,Fo),yr.subVectors(t.b,Fo),xr.subVectors(t.c,Fo),ns.subVectors(yr,_r),ss.subVectors(xr,yr),Bs.subVectors(_r,xr);let i=[0,-ns.z,ns.y,0,-ss.z,ss.y,0,-Bs.z,Bs.y,ns.z,0,-ns.x,ss.z,0,-ss.x,Bs.z,0,-Bs.x,-ns.y,ns.x,0,-ss.y,ss.x,0,-Bs.y,Bs.x,0];return!mf(i,_r,yr,xr,al)||(i=[1,0,0,0,1,0,0,0,1],!mf(i,_r,yr,xr,al))?!1:(ll.crossVectors(ns,ss),i=[ll.x,ll.y,ll.z],mf(i,_r,yr,xr,al))}clampPoint(t,i){return i.copy(t).clamp(this.min,this.max)}distanceToPoint(t){return this.clampPoint(t,sn).distanceTo(t)}getBoundingSphere(t){return this.isEmpty()?t.makeEmpty():(this.getCenter(t.center),t.radius=this.getSize(sn).length()*.5),t}intersect(t){return this.min.max(t.min),this.max.min(t.max),this.isEmpty()&&this.makeEmpty(),this}union(t){return this.min.min(t.min),this.max.max(t.max),this}applyMatrix4(t){return this.isEmpty()?this:(Bn[0].set(this.min.x,this.min.y,this.min.z).applyMatrix4(t),Bn[1].set(this.min.x,this.min.y,this.max.z).applyMatrix4(t),Bn[2].set(this.min.x,this.max.y,this.min.z).applyMatrix4(t),Bn[3].set(this.min.x,this.max.y,this.max.z).applyMatrix4(t),Bn[4].set(this.max.x,this.min.y,this.min.z).applyMatrix4(t),Bn[5].set(this.max.x,this.min.y,this.max.z).applyMatrix4(t),Bn[6].set(this.max.x,this.max.y,this.min.z).applyMatrix4(t),Bn[7].set(this.max.x,this.max.y,this.max.z).applyMatrix4(t),this.setFromPoints(Bn),this)}translate(t){return this.min.add(t),this.max.add(t),this}equals(t){return t.min.equals(this.min)&&t.max.equals(this.max)}toJSON(){return{min:this.min.toArray(),max:this.max.toArray()}}fromJSON(t){return this.min.fromArray(t.min),this.max.fromArray(t.max),this}},Bn=[new C,new C,new C,new C,new C,new C,new C,new C],sn=new C,ol=new Ce,_r=new C,yr=new C,xr=new C,ns=new C,ss=new C,Bs=new C,Fo=new C,al=new C,ll=new C,ks=new C;function mf(e,t,i,n,s){for(let r=0,o=e.length-3;r<=o;r+=3){ks.fromArray(e,r);let a=s.x*Math.abs(ks.x)+s.y*Math.abs(ks.y)+s.z*Math.abs(ks.z),l=t.dot(ks),c=i.dot(ks),h=n.dot(ks);if(Math.max(-Math.max(l,c,h),Math.min(l,c,h))>a)return!1}return!0}var Ve=new C,cl=new Tt,RS=0,Zt=class extends rn{constructor(t,i,n=!1){if(super(),Array.isArray(t))throw new TypeError("THREE.BufferAttribute: array should be a Typed Array.");this.isBufferAttribute=!0,Object.defineProperty(this,"id",{value:RS++}),this.name="",this.array=t,this.itemSize=i,this.count=t!==void 0?t.length/i:0,this.normalized=n,this.usage=g_,this.updateRanges=[],this.gpuType=ln,this.version=0,this._normalizationScale=t!==void 0?cd(t):void 0}onUploadCallback(){}set needsUpdate(t){t===!0&&this.version++}setUsage(t){return this.usage=t,this}addUpdateRange(t,i){this.updateRanges.push({start:t,count:i})}clearUpdateRanges(){this.updateRanges.length=0}copy(t){return this.name=t.name,this.array=new t.array.constructor(t.array),this.itemSize=t.itemSize,this.count=t.count,this.normalized=t.normalized,this.usage=t.usage,this.gpuType=t.gpuType,this._normalizationScale=t._normalizationScale,this}copyAt(t,i,n){t*=this.itemSize,n*=i.itemSize;for(let s=0,r=this.itemSize;s<r;s++)this.array[t+s]=i.array[n+s];return this}copyArray(t){return this.array.set(t),this}applyMatrix3(t){if(this.itemSize===2)for(let i=0,n=this.count;i<n;i++)cl.fromBufferAttribute(this,i),cl.applyMatrix3(t),this.setXY(i,cl.x,cl.y);else if(this.itemSize===3)for(let i=0,n=this.count;i<n;i++)Ve.fromBufferAttribute(this,i),Ve.applyMatrix3(t),this.setXYZ(i,Ve.x,Ve.y,Ve.z);return this}applyMatrix4(t){for(let i=0,n=this.count;i<n;i++)Ve.fromBufferAttribute(this,i),Ve.applyMatrix4(t),this.setXYZ(i,Ve.x,Ve.y,Ve.z);return this}applyNormalMatrix(t){for(let i=0,n=this.count;i<n;i++)Ve.fromBufferAttribute(this,i),Ve.applyNormalMatrix(t),this.setXYZ(i,Ve.x,Ve.y,Ve.z);return this}transformDirection(t){for(let i=0,n=this.count;i<n;i++)Ve.fromBufferAttribute(this,i),Ve.transformDirection(t),this.setXYZ(i,Ve.x,Ve.y,Ve.z);return this}set(t,i=0){return this.array.set(t,i),this}getComponent(t,i){let n=this.array[t*this.itemSize+i];return this.normalized&&(n=this._denormalize(n)),n}setComponent(t,i,n){return this.normalized&&(n=this._normalize(n)),this.array[t*this.itemSize+i]=n,this}getX(t){let i=this.array[t*this.itemSize];return this.normalized&&(i=this._denormalize(i)),i}setX(t,i){return this.normalized&&(i=this._normalize(i)),this.array[t*this.itemSize]=i,this}getY(t){let i=this.array[t*this.itemSize+1];return this.normalized&&(i=this._denormalize(i)),i}setY(t,i){return this.normalized&&(i=this._normalize(i)),this.array[t*this.itemSize+1]=i,this}getZ(t){let i=this.array[t*this.itemSize+2];return this.normalized&&(i=this._denormalize(i)),i}setZ(t,i){return this.normalized&&(i=this._normalize(i)),this.array[t*this.itemSize+2]=i,this}getW(t){let i=this.array[t*this.itemSize+3];return this.normalized&&(i=this._denormalize(i)),i}setW(t,i){return this.normalized&&(i=this._normalize(i)),this.array[t*this.itemSize+3]=i,this}setXY(t,i,n){return t*=this.itemSize,this.normalized&&(i=this._normalize(i),n=this._normalize(n)),this.array[t+0]=i,this.array[t+1]=n,this}setXYZ(t,i,n,s){return t*=this.itemSize,this.normalized&&(i=this._normalize(i),n=this._normalize(n),s=this._normalize(s)),this.array[t+0]=i,this.array[t+1]=n,this.array[t+2]=s,this}setXYZW(t,i,n,s,r){return t*=this.itemSize,this.normalized&&(i=this._normalize(i),n=this._normalize(n),s=this._normalize(s),r=this._normalize(r)),this.array[t+0]=i,this.array[t+1]=n,this.array[t+2]=s,this.array[t+3]=r,this}onUpload(t){return this.onUploadCallback=t,this}clone(){return new this.constructor(this.array,this.itemSize).copy(this)}toJSON(){let t={itemSize:this.itemSize,type:this.array.constructor.name,array:Array.from(this.array),normalized:this.normalized};return t.name=this.name,t.usage=this.usage,t.gpuType=this.gpuType,t}dispose(){this.dispatchEvent({type:"dispose"})}_denormalize(t){let i=this._normalizationScale;return i!==void 0?Math.max(t/i,-1):S_(t,this.array)}_normalize(t){let i=this._normalizationScale;return i!==void 0?Math.round(t*i):w_(t,this.array)}};var Yo=class extends Zt{constructor(t,i,n){super(new Uint16Array(t),i,n)}};var Ko=class extends Zt{constructor(t,i,n){super(new Uint32Array(t),i,n)}};var ei=class extends Zt{constructor(t,i,n){super(new Float32Array(t),i,n)}},CS=new Ce,Bo=new C,gf=new C,vn=class{constructor(t=new C,i=-1){this.isSphere=!0,this.center=t,this.radius=i}set(t,i){return this.center.copy(t),this.radius=i,this}setFromPoints(t,i){let n=this.center;i!==void 0?n.copy(i):CS.setFromPoints(t).getCenter(n);let s=0;for(let r=0,o=t.length;r<o;r++)s=Math.max(s,n.distanceToSquared(t[r]));return this.radius=Math.sqrt(s),this}copy(t){return this.center.copy(t.center),this.radius=t.radius,this}isEmpty(){return this.radius<0}makeEmpty(){return this.center.set(0,0,0),this.radius=-1,this}containsPoint(t){return t.distanceToSquared(this.center)<=this.radius*this.radius}distanceToPoint(t){return t.distanceTo(this.center)-this.radius}intersectsSphere(t){let i=this.radius+t.radius;return t.center.distanceToSquared(this.center)<=i*i}intersectsBox(t){return t.intersectsSphere(this)}intersectsPlane(t){return Math.abs(t.distanceToPoint(this.center))<=this.radius}clampPoint(t,i){let n=this.center.distanceToSquared(t);return i.copy(t),n>this.radius*this.radius&&(i.sub(this.center).normalize(),i.multiplyScalar(this.radius).add(this.center)),i}getBoundingBox(t){return this.isEmpty()?(t.makeEmpty(),t):(t.set(this.center,this.center),t.expandByScalar(this.radius),t)}applyMatrix4(t){return this.center.applyMatrix4(t),this.radius=this.radius*t.getMaxScaleOnAxis(),this}translate(t){return this.center.add(t),this}expandByPoint(t){if(this.isEmpty())return this.center.copy(t),this.radius=0,this;Bo.subVectors(t,this.center);let i=Bo.lengthSq();if(i>this.radius*this.radius){let n=Math.sqrt(i),s=(n-this.radius)*.5;this.center.addScaledVector(Bo,s/n),this.radius+=s}return this}union(t){return t.isEmpty()?this:this.isEmpty()?(this.copy(t),this):(this.center.equals(t.center)===!0?this.radius=Math.max(this.radius,t.radius):(gf.subVectors(t.center,this.center).setLength(t.radius),this.expandByPoint(Bo.copy(t.center).add(gf)),this.expandByPoint(Bo.copy(t.center).sub(gf))),this)}equals(t){return t.center.equals(this.center)&&t.radius===this.radius}clone(){return new this.constructor().copy(this)}toJSON(){return{radius:this.radius,center:this.center.toArray()}}fromJSON(t){return this.radius=t.radius,this.center.fromArray(t.center),this}},PS=0,$i=new Vt,_f=new Ai,vr=new C,Di=new Ce,ko=new Ce,ti=new C,Jt=class e extends rn{constructor(){super(),this.isBufferGeometry=!0,Object.defineProperty(this,"id",{value:PS++}),this.uuid=Vr(),this.name="",this.type="BufferGeometry",this.index=null,this.indirect=null,this.indirectOffset=0,this.attributes={},this.morphAttributes={},this.morphTargetsRelative=!1,this.groups=[],this.boundingBox=null,this.boundingSphere=null,this.drawRange={start:0,count:1/0},this.userData={},this._transformed=!1}getIndex(){return this.index}setIndex(t){return Array.isArray(t)?this.index=new(eS(t)?Ko:Yo)(t,1):this.index=t,this}setIndirect(t,i=0){return this.indirect=t,this.indirectOffset=i,this}getIndirect(){return this.indirect}getAttribute(t){return this.attributes[t]}setAttribute(t,i){return this.attributes[t]=i,this}deleteAttribute(t){return delete this.attributes[t],this}hasAttribute(t){return this.attributes[t]!==void 0}addGroup(t,i,n=0){this.groups.push({start:t,count:i,materialIndex:n})}clearGroups(){this.groups=[]}setDrawRange(t,i){this.drawRange.start=t,this.drawRange.count=i}applyMatrix4(t){let i=this.attributes.position;i!==void 0&&(i.applyMatrix4(t),i.needsUpdate=!0);let n=this.attributes.normal;if(n!==void 0){let r=new Nt().getNormalMatrix(t);n.applyNormalMatrix(r),n.needsUpdate=!0}let s=this.attributes.tangent;return s!==void 0&&(s.transformDirection(t),s.needsUpdate=!0),this.boundingBox!==null&&this.computeBoundingBox(),this.boundingSphere!==null&&this.computeBoundingSphere(),this._transformed=!0,this}applyQuaternion(t){return $i.makeRotationFromQuaternion(t),this.applyMatrix4($i),this}rotateX(t){return $i.makeRotationX(t),this.applyMatrix4($i),this}rotateY(t){return $i.makeRotationY(t),this.applyMatrix4($i),this}rotateZ(t){return $i.makeRotationZ(t),this.applyMatrix4($i),this}translate(t,i,n){return $i.makeTranslation(t,i,n),this.applyMatrix4($i),this}scale(t,i,n){return $i.makeScale(t,i,n),this.applyMatrix4($i),this}lookAt(t){return _f.lookAt(t),_f.updateMatrix(),this.applyMatrix4(_f.matrix),this}center(){return this.computeBoundingBox(),this.boundingBox.getCenter(vr).negate(),this.translate(vr.x,vr.y,vr.z),this}setFromPoints(t){let i=this.getAttribute("position");if(i===void 0){let n=[];for(let s=0,r=t.length;s<r;s++){let o=t[s];n.push(o.x,o.y,o.z||0)}this.setAttribute("position",new ei(n,3))}else{let n=Math.min(t.length,i.count);for(let s=0;s<n;s++){let r=t[s];i.setXYZ(s,r.x,r.y,r.z||0)}t.length>i.count&&Ct("BufferGeometry: Buffer size too small for points data. Use .dispose() and create a new geometry."),i.needsUpdate=!0}return this}computeBoundingBox(){this.boundingBox===null&&(this.boundingBox=new Ce);let t=this.attributes.position,i=this.morphAttributes.position;if(t&&t.isGLBufferAttribute){Lt("BufferGeometry.computeBoundingBox(): GLBufferAttribute requires a manual bounding box.",this),this.boundingBox.set(new C(-1/0,-1/0,-1/0),new C(1/0,1/0,1/0));return}if(t!==void 0){if(this.boundingBox.setFromBufferAttribute(t),i)for(let n=0,s=i.length;n<s;n++){let r=i[n];Di.setFromBufferAttribute(r),this.morphTargetsRelative?(ti.addVectors(this.boundingBox.min,Di.min),this.boundingBox.expandByPoint(ti),ti.addVectors(this.boundingBox.max,Di.max),this.boundingBox.expandByPoint(ti)):(this.boundingBox.expandByPoint(Di.min),this.boundingBox.expandByPoint(Di.max))}}else this.boundingBox.makeEmpty();(isNaN(this.boundingBox.min.x)||isNaN(this.boundingBox.min.y)||isNaN(this.boundingBox.min.z))&&Lt('BufferGeometry.computeBoundingBox(): Computed min/max have NaN values. The "position" attribute is likely to have NaN values.',this)}computeBoundingSphere(){this.boundingSphere===null&&(this.boundingSphere=new vn);let t=this.attributes.position,i=this.morphAttributes.position;if(t&&t.isGLBufferAttribute){Lt("BufferGeometry.computeBoundingSphere(): GLBufferAttribute requires a manual bounding sphere.",this),this.boundingSphere.set(new C,1/0);return}if(t){let n=this.boundingSphere.center;if(Di.setFromBufferAttribute(t),i)for(let r=0,o=i.length;r<o;r++){let a=i[r];ko.setFromBufferAttribute(a),this.morphTargetsRelative?(ti.addVectors(Di.min,ko.min),Di.expandByPoint(ti),ti.addVectors(Di.max,ko.max),Di.expandByPoint(ti)):(Di.expandByPoint(ko.min),Di.expandByPoint(ko.max))}Di.getCenter(n);let s=0;for(let r=0,o=t.count;r<o;r++)ti.fromBufferAttribute(t,r),s=Math.max(s,n.distanceToSquared(ti));if(i)for(let r=0,o=i.length;r<o;r++){let a=i[r],l=this.morphTargetsRelative;for(let c=0,h=a.count;c<h;c++)ti.fromBufferAttribute(a,c),l&&(vr.fromBufferAttribute(t,c),ti.add(vr)),s=Math.max(s,n.distanceToSquared(ti))}this.boundingSphere.radius=Math.sqrt(s),isNaN(this.boundingSphere.radius)&&Lt('BufferGeometry.computeBoundingSphere(): Computed radius is NaN. The "position" attribute is likely to have NaN values.',this)}}computeTangents(){let t=this.index,i=this.attributes;if(t===null||i.position===void 0||i.normal===void 0||i.uv===void 0){Lt("BufferGeometry: .computeTangents() failed. Missing required attributes (index, position, normal or uv)");return}let n=i.position,s=i.normal,r=i.uv,o=this.getAttribute("tangent");(o===void 0||o.count!==n.count)&&(o=new Zt(new Float32Array(4*n.count),4),this.setAttribute("tangent",o));let a=[],l=[],c=new Uint8Array(n.count);for(let L=0;L<n.count;L++)a[L]=new C,l[L]=new C;let h=new C,u=new C,f=new C,d=new Tt,g=new Tt,x=new Tt,p=new C,m=new C;function y(L,A,R){c[L]=c[A]=c[R]=1,h.fromBufferAttribute(n,L),u.fromBufferAttribute(n,A),f.fromBufferAttribute(n,R),d.fromBufferAttribute(r,L),g.fromBufferAttribute(r,A),x.fromBufferAttribute(r,R),u.sub(h),f.sub(h),g.sub(d),x.sub(d);let P=1/(g.x*x.y-x.x*g.y);isFinite(P)&&(p.copy(u).multiplyScalar(x.y).addScaledVector(f,-g.y).multiplyScalar(P),m.copy(f).multiplyScalar(g.x).addScaledVector(u,-x.x).multiplyScalar(P),a[L].add(p),a[A].add(p),a[R].add(p),l[L].add(m),l[A].add(m),l[R].add(m))}let S=this.groups;S.length===0&&(S=[{start:0,count:t.count}]);for(let L=0,A=S.length;L<A;++L){let R=S[L],P=R.start,O=R.count;for(let N=P,B=P+O;N<B;N+=3)y(t.getX(N+0),t.getX(N+1),t.getX(N+2))}let v=new C,w=new C,T=new C,_=new C;function M(L){T.fromBufferAttribute(s,L),_.copy(T);let A=a[L];v.copy(A),v.sub(T.multiplyScalar(T.dot(A))).normalize(),w.crossVectors(_,A);let P=w.dot(l[L])<0?-1:1;o.setXYZW(L,v.x,v.y,v.z,P)}for(let L=0,A=n.count;L<A;++L)c[L]&&M(L);this._transformed=!0}computeVertexNormals(){let t=this.index,i=this.getAttribute("position");if(i!==void 0){let n=this.getAttribute("normal");if(n===void 0||n.count!==i.count)n=new Zt(new Float32Array(i.count*3),3),this.setAttribute("normal",n);else for(let f=0,d=n.count;f<d;f++)n.setXYZ(f,0,0,0);let s=new C,r=new C,o=new C,a=new C,l=new C,c=new C,h=new C,u=new C;if(t)for(let f=0,d=t.count;f<d;f+=3){let g=t.getX(f+0),x=t.getX(f+1),p=t.getX(f+2);s.fromBufferAttribute(i,g),r.fromBufferAttribute(i,x),o.fromBufferAttribute(i,p),h.subVectors(o,r),u.subVectors(s,r),h.cross(u),a.fromBufferAttribute(n,g),l.fromBufferAttribute(n,x),c.fromBufferAttribute(n,p),a.add(h),l.add(h),c.add(h),n.setXYZ(g,a.x,a.y,a.z),n.setXYZ(x,l.x,l.y,l.z),n.setXYZ(p,c.x,c.y,c.z)}else for(let f=0,d=i.count;f<d;f+=3)s.fromBufferAttribute(i,f+0),r.fromBufferAttribute(i,f+1),o.fromBufferAttribute(i,f+2),h.subVectors(o,r),u.subVectors(s,r),h.cross(u),n.setXYZ(f+0,h.x,h.y,h.z),n.setXYZ(f+1,h.x,h.y,h.z),n.setXYZ(f+2,h.x,h.y,h.z);this.normalizeNormals(),n.needsUpdate=!0}}normalizeNormals(){let t=this.attributes.normal;for(let i=0,n=t.count;i<n;i++)ti.fromBufferAttribute(t,i),ti.normalize(),t.setXYZ(i,ti.x,ti.y,ti.z)}toNonIndexed(){function t(a,l){let c=a.array,h=a.itemSize,u=a.normalized,f=new c.constructor(l.length*h),d=0,g=0;for(let x=0,p=l.length;x<p;x++){a.isInterleavedBufferAttribute?d=l[x]*a.data.stride+a.offset:d=l[x]*h;for(let m=0;m<h;m++)f[g++]=c[d++]}return new Zt(f,h,u)}if(this.index===null)return Ct("BufferGeometry.toNonIndexed(): BufferGeometry is already non-indexed."),this;let i=new e,n=this.index.array,s=this.attributes;for(let a in s){let l=s[a],c=t(l,n);i.setAttribute(a,c)}let r=this.morphAttributes;for(let a in r){let l=[],c=r[a];for(let h=0,u=c.length;h<u;h++){let f=c[h],d=t(f,n);l.push(d)}i.morphAttributes[a]=l}i.morphTargetsRelative=this.morphTargetsRelative;let o=this.groups;for(let a=0,l=o.length;a<l;a++){let c=o[a];i.addGroup(c.start,c.count,c.materialIndex)}return i}toJSON(){let t={metadata:{version:4.7,type:"BufferGeometry",generator:"BufferGeometry.toJSON"}};if(t.uuid=this.uuid,t.type=this.parameters!==void 0&&this._transformed===!0?"BufferGeometry":this.type,t.name=this.name,Object.keys(this.userData).length>0&&(t.userData=this.userData),this.parameters!==void 0&&this._transformed!==!0){let l=this.parameters;for(let c in l)l[c]!==void 0&&(t[c]=l[c]);return t}t.data={attributes:{}};let i=this.index;i!==null&&(t.data.index={type:i.array.constructor.name,array:Array.prototype.slice.call(i.array)});let n=this.attributes;for(let l in n){let c=n[l];t.data.attributes[l]=c.toJSON(t.data)}let s={},r=!1;for(let l in this.morphAttributes){let c=this.morphAttributes[l],h=[];for(let u=0,f=c.length;u<f;u++){let d=c[u];h.push(d.toJSON(t.data))}h.length>0&&(s[l]=h,r=!0)}r&&(t.data.morphAttributes=s,t.data.morphTargetsRelative=this.morphTargetsRelative);let o=this.groups;o.length>0&&(t.data.groups=JSON.parse(JSON.stringify(o)));let a=this.boundingSphere;return a!==null&&(t.data.boundingSphere=a.toJSON()),t}clone(){return new this.constructor().copy(this)}copy(t){this.index=null,this.attributes={},this.morphAttributes={},this.groups=[],this.boundingBox=null,this.boundingSphere=null;let i={};this.name=t.name;let n=t.index;n!==null&&this.setIndex(n.clone());let s=t.attributes;for(let c in s){let h=s[c];this.setAttribute(c,h.clone(i))}let r=t.morphAttributes;for(let c in r){let h=[],u=r[c];for(let f=0,d=u.length;f<d;f++)h.push(u[f].clone(i));this.morphAttributes[c]=h}this.morphTargetsRelative=t.morphTargetsRelative;let o=t.groups;for(let c=0,h=o.length;c<h;c++){let u=o[c];this.addGroup(u.start,u.count,u.materialIndex)}let a=t.boundingBox;a!==null&&(this.boundingBox=a.clone());let l=t.boundingSphere;return l!==null&&(this.boundingSphere=l.clone()),this.drawRange.start=t.drawRange.start,this.drawRange.count=t.drawRange.count,this.userData=t.userData,this._transformed=t._transformed,this}dispose(){this.dispatchEvent({type:"dispose"})}};var yf=new C,IS=new C,LS=new Nt,Be=class{constructor(t=new C(1,0,0),i=0){this.isPlane=!0,this.normal=t,this.constant=i}set(t,i){return this.normal.copy(t),this.constant=i,this}setComponents(t,i,n,s){return this.normal.set(t,i,n),this.constant=s,this}setFromNormalAndCoplanarPoint(t,i){return this.normal.copy(t),this.constant=-i.dot(this.normal),this}setFromCoplanarPoints(t,i,n){let s=yf.subVectors(n,i).cross(IS.subVectors(t,i)).normalize();return this.setFromNormalAndCoplanarPoint(s,t),this}copy(t){return this.normal.copy(t.normal),this.constant=t.constant,this}normalize(){let t=1/this.normal.length();return this.normal.multiplyScalar(t),this.constant*=t,this}negate(){return this.constant*=-1,this.normal.negate(),this}distanceToPoint(t){return this.normal.dot(t)+this.constant}distanceToSphere(t){return this.distanceToPoint(t.center)-t.radius}projectPoint(t,i){return i.copy(t).addScaledVector(this.normal,-this.distanceToPoint(t))}intersectLine(t,i,n=!0){let s=t.delta(yf),r=this.normal.dot(s);if(r===0)return this.distanceToPoint(t.start)===0?i.copy(t.start):null;let o=-(t.start.dot(this.normal)+this.constant)/r;return n===!0&&(o<0||o>1)?null:i.copy(t.start).addScaledVector(s,o)}intersectsLine(t){let i=this.distanceToPoint(t.start),n=this.distanceToPoint(t.end);return i<0&&n>0||n<0&&i>0}intersectsBox(t){return t.intersectsPlane(this)}intersectsSphere(t){return t.intersectsPlane(this)}coplanarPoint(t){return t.copy(this.normal).multiplyScalar(-this.constant)}applyMatrix4(t,i){let n=i||LS.getNormalMatrix(t),s=this.coplanarPoint(yf).applyMatrix4(t),r=this.normal.applyMatrix3(n).normalize();return this.constant=-s.dot(r),this}translate(t){return this.constant-=t.dot(this.normal),this}equals(t){return t.normal.equals(this.normal)&&t.constant===this.constant}clone(){return new this.constructor().copy(this)}toJSON(){return{normal:this.normal.toArray(),constant:this.constant}}fromJSON(t){return this.normal.fromArray(t.normal),this.constant=t.constant,this}},NS=0,Vn=class extends rn{constructor(){super(),this.isMaterial=!0,Object.defineProperty(this,"id",{value:NS++}),this.uuid=Vr(),this.name="",this.type="Material",this.blending=kr,this.side=di,this.vertexColors=!1,this.opacity=1,this.transparent=!1,this.alphaHash=!1,this.blendSrc=Uf,this.blendDst=Ff,this.blendEquation=Ks,this.blendSrcAlpha=null,this.blendDstAlpha=null,this.blendEquationAlpha=null,this.blendColor=new Xt(0,0,0),this.blendAlpha=0,this.depthFunc=Rr,this.depthTest=!0,this.depthWrite=!0,this.stencilWriteMask=255,this.stencilFunc=h_,this.stencilRef=0,this.stencilFuncMask=255,this.stencilFail=Ll,this.stencilZFail=Ll,this.stencilZPass=Ll,this.stencilWrite=!1,this.clippingPlanes=null,this.clipIntersection=!1,this.clipShadows=!1,this.shadowSide=null,this.colorWrite=!0,this.precision=null,this.polygonOffset=!1,this.polygonOffsetFactor=0,this.polygonOffsetUnits=0,this.dithering=!1,this.alphaToCoverage=!1,this.premultipliedAlpha=!1,this.forceSinglePass=!1,this.allowOverride=!0,this.visible=!0,this.toneMapped=!0,this.userData={},this.version=0,this._alphaTest=0}get alphaTest(){return this._alphaTest}set alphaTest(t){this._alphaTest>0!=t>0&&this.version++,this._alphaTest=t}onBeforeRender(){}onBeforeCompile(){}customProgramCacheKey(){return this.onBeforeCompile.toString()}setValues(t){if(t!==void 0)for(let i in t){let n=t[i];if(n===void 0){Ct(`Material: parameter '${i}' has value of undefined.`);continue}let s=this[i];if(s===void 0){Ct(`Material: '${i}' is not a property of THREE.${this.type}.`);continue}s&&s.isColor?s.set(n):s&&s.isVector2&&n&&n.isVector2||s&&s.isEuler&&n&&n.isEuler||s&&s.isVector3&&n&&n.isVector3?s.copy(n):this[i]=n}}toJSON(t){let i=t===void 0||typeof t=="string";i&&(t={textures:{},images:{}});let n={metadata:{version:4.7,type:"Material",generator:"Material.toJSON"}};n.uuid=this.uuid,n.type=this.type,n.blending=this.blending,n.side=this.side,n.shadowSide=this.shadowSide,n.vertexColors=this.vertexColors,n.opacity=this.opacity,n.transparent=this.transparent,n.blendSrc=this.blendSrc,n.blendDst=this.blendDst,n.blendEquation=this.blendEquation,n.blendSrcAlpha=this.blendSrcAlpha,n.blendDstAlpha=this.blendDstAlpha,n.blendEquationAlpha=this.blendEquationAlpha,n.blendColor=this.blendColor.getHex(),n.blendAlpha=this.blendAlpha,n.depthFunc=this.depthFunc,n.depthTest=this.depthTest,n.depthWrite=this.depthWrite,n.colorWrite=this.colorWrite,n.clipIntersection=this.clipIntersection,n.clipShadows=this.clipShadows,n.stencilWriteMask=this.stencilWriteMask,n.stencilFunc=this.stencilFunc,n.stencilRef=this.stencilRef,n.stencilFuncMask=this.stencilFuncMask,n.stencilFail=this.stencilFail,n.stencilZFail=this.stencilZFail,n.stencilZPass=this.stencilZPass,n.stencilWrite=this.stencilWrite,n.polygonOffset=this.polygonOffset,n.polygonOffsetFactor=this.polygonOffsetFactor,n.polygonOffsetUnits=this.polygonOffsetUnits,n.dithering=this.dithering,n.alphaTest=this.alphaTest,n.alphaHash=this.alphaHash,n.alphaToCoverage=this.alphaToCoverage,n.premultipliedAlpha=this.premultipliedAlpha,n.forceSinglePass=this.forceSinglePass,n.allowOverride=this.allowOverride,n.visible=this.visible,n.toneMapped=this.toneMapped,n.name=this.name,this.color&&this.color.isColor&&(n.color=this.color.getHex()),this.roughness!==void 0&&(n.roughness=this.roughness),this.metalness!==void 0&&(n.metalness=this.metalness),this.sheen!==void 0&&(n.sheen=this.sheen),this.sheenColor&&this.sheenColor.isColor&&(n.sheenColor=this.sheenColor.getHex()),this.sheenRoughness!==void 0&&(n.sheenRoughness=this.sheenRoughness),this.emissive&&this.emissive.isColor&&(n.emissive=this.emissive.getHex()),this.emissiveIntensity!==void 0&&(n.emissiveIntensity=this.emissiveIntensity),this.specular&&this.specular.isColor&&(n.specular=this.specular.getHex()),this.specularIntensity!==void 0&&(n.specularIntensity=this.specularIntensity),this.specularColor&&this.specularColor.isColor&&(n.specularColor=this.specularColor.getHex()),this.shininess!==void 0&&(n.shininess=this.shininess),this.clearcoat!==void 0&&(n.clearcoat=this.clearcoat),this.clearcoatRoughness!==void 0&&(n.clearcoatRoughness=this.clearcoatRoughness),this.diffuseRoughness!==void 0&&(n.diffuseRoughness=this.diffuseRoughness),this.diffuseRoughnessMap&&this.diffuseRoughnessMap.isTexture&&(n.diffuseRoughnessMap=this.diffuseRoughnessMap.toJSON(t).uuid),this.clearcoatMap&&this.clearcoatMap.isTexture&&(n.clearcoatMap=this.clearcoatMap.toJSON(t).uuid),this.clearcoatRoughnessMap&&this.clearcoatRoughnessMap.isTexture&&(n.clearcoatRoughnessMap=this.clearcoatRoughnessMap.toJSON(t).uuid),this.clearcoatNormalMap&&this.clearcoatNormalMap.isTexture&&(n.clearcoatNormalMap=this.clearcoatNormalMap.toJSON(t).uuid,n.clearcoatNormalScale=this.clearcoatNormalScale.toArray()),this.sheenColorMap&&this.sheenColorMap.isTexture&&(n.sheenColorMap=this.sheenColorMap.toJSON(t).uuid),this.sheenRoughnessMap&&this.sheenRoughnessMap.isTexture&&(n.sheenRoughnessMap=this.sheenRoughnessMap.toJSON(t).uuid),this.dispersion!==void 0&&(n.dispersion=this.dispersion),this.retroreflectivity!==void 0&&(n.retroreflectivity=this.retroreflectivity),this.iridescence!==void 0&&(n.iridescence=this.iridescence),this.iridescenceIOR!==void 0&&(n.iridescenceIOR=this.iridescenceIOR),this.iridescenceThicknessMinimum!==void 0&&(n.iridescenceThicknessMinimum=this.iridescenceThicknessMinimum),this.iridescenceThicknessMaximum!==void 0&&(n.iridescenceThicknessMaximum=this.iridescenceThicknessMaximum),this.iridescenceMap&&this.iridescenceMap.isTexture&&(n.iridescenceMap=this.iridescenceMap.toJSON(t).uuid),this.iridescenceThicknessMap&&this.iridescenceThicknessMap.isTexture&&(n.iridescenceThicknessMap=this.iridescenceThicknessMap.toJSON(t).uuid),this.anisotropy!==void 0&&(n.anisotropy=this.anisotropy),this.anisotropyRotation!==void 0&&(n.anisotropyRotation=this.anisotropyRotation),this.anisotropyMap&&this.anisotropyMap.isTexture&&(n.anisotropyMap=this.anisotropyMap.toJSON(t).uuid),this.map&&this.map.isTexture&&(n.map=this.map.toJSON(t).uuid),this.matcap&&this.matcap.isTexture&&(n.matcap=this.matcap.toJSON(t).uuid),this.alphaMap&&this.alphaMap.isTexture&&(n.alphaMap=this.alphaMap.toJSON(t).uuid),this.lightMap&&this.lightMap.isTexture&&(n.lightMap=this.lightMap.toJSON(t).uuid,n.lightMapIntensity=this.lightMapIntensity),this.aoMap&&this.aoMap.isTexture&&(n.aoMap=this.aoMap.toJSON(t).uuid,n.aoMapIntensity=this.aoMapIntensity),this.bumpMap&&this.bumpMap.isTexture&&(n.bumpMap=this.bumpMap.toJSON(t).uuid,n.bumpScale=this.bumpScale),this.normalMap&&this.normalMap.isTexture&&(n.normalMap=this.normalMap.toJSON(t).uuid,n.normalMapType=this.normalMapType,n.normalScale=this.normalScale.toArray()),this.displacementMap&&this.displacementMap.isTexture&&(n.displacementMap=this.displacementMap.toJSON(t).uuid,n.displacementScale=this.displacementScale,n.displacementBias=this.displacementBias),this.roughnessMap&&this.roughnessMap.isTexture&&(n.roughnessMap=this.roughnessMap.toJSON(t).uuid),this.metalnessMap&&this.metalnessMap.isTexture&&(n.metalnessMap=this.metalnessMap.toJSON(t).uuid),this.emissiveMap&&this.emissiveMap.isTexture&&(n.emissiveMap=this.emissiveMap.toJSON(t).uuid),this.specularMap&&this.specularMap.isTexture&&(n.specularMap=this.specularMap.toJSON(t).uuid),this.specularIntensityMap&&this.specularIntensityMap.isTexture&&(n.specularIntensityMap=this.specularIntensityMap.toJSON(t).uuid),this.specularColorMap&&this.specularColorMap.isTexture&&(n.specularColorMap=this.specularColorMap.toJSON(t).uuid),this.envMap&&this.envMap.isTexture&&(n.envMap=this.envMap.toJSON(t).uuid,this.combine!==void 0&&(n.combine=this.combine)),this.envMapRotation!==void 0&&(n.envMapRotation=this.envMapRotation.toArray()),this.envMapIntensity!==void 0&&(n.envMapIntensity=this.envMapIntensity),this.reflectivity!==void 0&&(n.reflectivity=this.reflectivity),this.refractionRatio!==void 0&&(n.refractionRatio=this.refractionRatio),this.gradientMap&&this.gradientMap.isTexture&&(n.gradientMap=this.gradientMap.toJSON(t).uuid),this.transmission!==void 0&&(n.transmission=this.transmission),this.transmissionMap&&this.transmissionMap.isTexture&&(n.transmissionMap=this.transmissionMap.toJSON(t).uuid),this.thickness!==void 0&&(n.thickness=this.thickness),this.thicknessMap&&this.thicknessMap.isTexture&&(n.thicknessMap=this.thicknessMap.toJSON(t).uuid),this.attenuationDistance!==void 0&&(n.attenuationDistance=this.attenuationDistance),this.attenuationColor!==void 0&&(n.attenuationColor=this.attenuationColor.getHex()),this.size!==void 0&&(n.size=this.size),this.sizeAttenuation!==void 0&&(n.sizeAttenuation=this.sizeAttenuation),Array.isArray(this.clippingPlanes)&&this.clippingPlanes.length>0&&(n.clippingPlanes=this.clippingPlanes.map(r=>r.toJSON())),this.rotation!==void 0&&(n.rotation=this.rotation),this.depthPacking!==void 0&&(n.depthPacking=this.depthPacking),this.linewidth!==void 0&&(n.linewidth=this.linewidth),this.linecap!==void 0&&(n.linecap=this.linecap),this.linejoin!==void 0&&(n.linejoin=this.linejoin),this.dashSize!==void 0&&(n.dashSize=this.dashSize),this.gapSize!==void 0&&(n.gapSize=this.gapSize),this.scale!==void 0&&(n.scale=this.scale),this.wireframe!==void 0&&(n.wireframe=this.wireframe),this.wireframeLinewidth!==void 0&&(n.wireframeLinewidth=this.wireframeLinewidth),this.wireframeLinecap!==void 0&&(n.wireframeLinecap=this.wireframeLinecap),this.wireframeLinejoin!==void 0&&(n.wireframeLinejoin=this.wireframeLinejoin),this.flatShading!==void 0&&(n.flatShading=this.flatShading),this.fog!==void 0&&(n.fog=this.fog),Object.keys(this.userData).length>0&&(n.userData=this.userData);function s(r){let o=[];for(let a in r){let l=r[a];delete l.metadata,o.push(l)}return o}if(i){let r=s(t.textures),o=s(t.images);r.length>0&&(n.textures=r),o.length>0&&(n.images=o)}return n}fromJSON(t,i){if(t.uuid!==void 0&&(this.uuid=t.uuid),t.name!==void 0&&(this.name=t.name),t.color!==void 0&&this.color!==void 0&&this.color.setHex(t.color),t.roughness!==void 0&&(this.roughness=t.roughness),t.metalness!==void 0&&(this.metalness=t.metalness),t.sheen!==void 0&&(this.sheen=t.sheen),t.sheenColor!==void 0&&(this.sheenColor=new Xt().setHex(t.sheenColor)),t.sheenRoughness!==void 0&&(this.sheenRoughness=t.sheenRoughness),t.emissive!==void 0&&this.emissive!==void 0&&this.emissive.setHex(t.emissive),t.specular!==void 0&&this.specular!==void 0&&this.specular.setHex(t.specular),t.specularIntensity!==void 0&&(this.specularIntensity=t.specularIntensity),t.specularColor!==void 0&&this.specularColor!==void 0&&this.specularColor.setHex(t.specularColor),t.shininess!==void 0&&(this.shininess=t.shininess),t.clearcoat!==void 0&&(this.clearcoat=t.clearcoat),t.clearcoatRoughness!==void 0&&(this.clearcoatRoughness=t.clearcoatRoughness),t.diffuseRoughness!==void 0&&(this.diffuseRoughness=t.diffuseRoughness),t.dispersion!==void 0&&(this.dispersion=t.dispersion),t.retroreflectivity!==void 0&&(this.retroreflectivity=t.retroreflectivity),t.iridescence!==void 0&&(this.iridescence=t.iridescence),t.iridescenceIOR!==void 0&&(this.iridescenceIOR=t.iridescenceIOR),t.iridescenceThicknessMinimum!==void 0&&(this.iridescenceThicknessMinimum=t.iridescenceThicknessMinimum),t.iridescenceThicknessMaximum!==void 0&&(this.iridescenceThicknessMaximum=t.iridescenceThicknessMaximum),t.iridescenceThicknessRange!==void 0&&(this.iridescenceThicknessMinimum=t.iridescenceThicknessRange[0],this.iridescenceThicknessMaximum=t.iridescenceThicknessRange[1]),t.transmission!==void 0&&(this.transmission=t.transmission),t.thickness!==void 0&&(this.thickness=t.thickness),t.attenuationDistance!==void 0&&(this.attenuationDistance=t.attenuationDistance),t.attenuationColor!==void 0&&this.attenuationColor!==void 0&&this.attenuationColor.setHex(t.attenuationColor),t.anisotropy!==void 0&&(this.anisotropy=t.anisotropy),t.anisotropyRotation!==void 0&&(this.anisotropyRotation=t.anisotropyRotation),t.fog!==void 0&&(this.fog=t.fog),t.flatShading!==void 0&&(this.flatShading=t.flatShading),t.blending!==void 0&&(this.blending=t.blending),t.combine!==void 0&&(this.combine=t.combine),t.side!==void 0&&(this.side=t.side),t.shadowSide!==void 0&&(this.shadowSide=t.shadowSide),t.opacity!==void 0&&(this.opacity=t.opacity),t.transparent!==void 0&&(this.transparent=t.transparent),t.alphaTest!==void 0&&(this.alphaTest=t.alphaTest),t.alphaHash!==void 0&&(this.alphaHash=t.alphaHash),t.depthFunc!==void 0&&(this.depthFunc=t.depthFunc),t.depthTest!==void 0&&(this.depthTest=t.depthTest),t.depthWrite!==void 0&&(this.depthWrite=t.depthWrite),t.colorWrite!==void 0&&(this.colorWrite=t.colorWrite),t.clippingPlanes!==void 0&&(this.clippingPlanes=t.clippingPlanes.map(n=>new Be().fromJSON(n))),t.clipIntersection!==void 0&&(this.clipIntersection=t.clipIntersection),t.clipShadows!==void 0&&(this.clipShadows=t.clipShadows),t.depthPacking!==void 0&&(this.depthPacking=t.depthPacking),t.blendSrc!==void 0&&(this.blendSrc=t.blendSrc),t.blendDst!==void 0&&(this.blendDst=t.blendDst),t.blendEquation!==void 0&&(this.blendEquation=t.blendEquation),t.blendSrcAlpha!==void 0&&(this.blendSrcAlpha=t.blendSrcAlpha),t.blendDstAlpha!==void 0&&(this.blendDstAlpha=t.blendDstAlpha),t.blendEquationAlpha!==void 0&&(this.blendEquationAlpha=t.blendEquationAlpha),t.blendColor!==void 0&&this.blendColor!==void 0&&this.blendColor.setHex(t.blendColor),t.blendAlpha!==void 0&&(this.blendAlpha=t.blendAlpha),t.stencilWriteMask!==void 0&&(this.stencilWriteMask=t.stencilWriteMask),t.stencilFunc!==void 0&&(this.stencilFunc=t.stencilFunc),t.stencilRef!==void 0&&(this.stencilRef=t.stencilRef),t.stencilFuncMask!==void 0&&(this.stencilFuncMask=t.stencilFuncMask),t.stencilFail!==void 0&&(this.stencilFail=t.stencilFail),t.stencilZFail!==void 0&&(this.stencilZFail=t.stencilZFail),t.stencilZPass!==void 0&&(this.stencilZPass=t.stencilZPass),t.stencilWrite!==void 0&&(this.stencilWrite=t.stencilWrite),t.wireframe!==void 0&&(this.wireframe=t.wireframe),t.wireframeLinewidth!==void 0&&(this.wireframeLinewidth=t.wireframeLinewidth),t.wireframeLinecap!==void 0&&(this.wireframeLinecap=t.wireframeLinecap),t.wireframeLinejoin!==void 0&&(this.wireframeLinejoin=t.wireframeLinejoin),t.rotation!==void 0&&(this.rotation=t.rotation),t.linewidth!==void 0&&(this.linewidth=t.linewidth),t.linecap!==void 0&&(this.linecap=t.linecap),t.linejoin!==void 0&&(this.linejoin=t.linejoin),t.dashSize!==void 0&&(this.dashSize=t.dashSize),t.gapSize!==void 0&&(this.gapSize=t.gapSize),t.scale!==void 0&&(this.scale=t.scale),t.polygonOffset!==void 0&&(this.polygonOffset=t.polygonOffset),t.polygonOffsetFactor!==void 0&&(this.polygonOffsetFactor=t.polygonOffsetFactor),t.polygonOffsetUnits!==void 0&&(this.polygonOffsetUnits=t.polygonOffsetUnits),t.dithering!==void 0&&(this.dithering=t.dithering),t.alphaToCoverage!==void 0&&(this.alphaToCoverage=t.alphaToCoverage),t.premultipliedAlpha!==void 0&&(this.premultipliedAlpha=t.premultipliedAlpha),t.forceSinglePass!==void 0&&(this.forceSinglePass=t.forceSinglePass),t.allowOverride!==void 0&&(this.allowOverride=t.allowOverride),t.visible!==void 0&&(this.visible=t.visible),t.toneMapped!==void 0&&(this.toneMapped=t.toneMapped),t.userData!==void 0&&(this.userData=t.userData),t.vertexColors!==void 0&&(typeof t.vertexColors=="number"?this.vertexColors=t.vertexColors>0:this.vertexColors=t.vertexColors),t.size!==void 0&&(this.size=t.size),t.sizeAttenuation!==void 0&&(this.sizeAttenuation=t.sizeAttenuation),t.map!==void 0&&(this.map=i[t.map]||null),t.matcap!==void 0&&(this.matcap=i[t.matcap]||null),t.alphaMap!==void 0&&(this.alphaMap=i[t.alphaMap]||null),t.bumpMap!==void 0&&(this.bumpMap=i[t.bumpMap]||null),t.bumpScale!==void 0&&(this.bumpScale=t.bumpScale),t.normalMap!==void 0&&(this.normalMap=i[t.normalMap]||null),t.normalMapType!==void 0&&(this.normalMapType=t.normalMapType),t.normalScale!==void 0){let n=t.normalScale;Array.isArray(n)===!1&&(n=[n,n]),this.normalScale=new Tt().fromArray(n)}return t.displacementMap!==void 0&&(this.displacementMap=i[t.displacementMap]||null),t.displacementScale!==void 0&&(this.displacementScale=t.displacementScale),t.displacementBias!==void 0&&(this.displacementBias=t.displacementBias),t.roughnessMap!==void 0&&(this.roughnessMap=i[t.roughnessMap]||null),t.metalnessMap!==void 0&&(this.metalnessMap=i[t.metalnessMap]||null),t.emissiveMap!==void 0&&(this.emissiveMap=i[t.emissiveMap]||null),t.emissiveIntensity!==void 0&&(this.emissiveIntensity=t.emissiveIntensity),t.specularMap!==void 0&&(this.specularMap=i[t.specularMap]||null),t.specularIntensityMap!==void 0&&(this.specularIntensityMap=i[t.specularIntensityMap]||null),t.specularColorMap!==void 0&&(this.specularColorMap=i[t.specularColorMap]||null),t.envMap!==void 0&&(this.envMap=i[t.envMap]||null),t.envMapRotation!==void 0&&this.envMapRotation.fromArray(t.envMapRotation),t.envMapIntensity!==void 0&&(this.envMapIntensity=t.envMapIntensity),t.reflectivity!==void 0&&(this.reflectivity=t.reflectivity),t.refractionRatio!==void 0&&(this.refractionRatio=t.refractionRatio),t.lightMap!==void 0&&(this.lightMap=i[t.lightMap]||null),t.lightMapIntensity!==void 0&&(this.lightMapIntensity=t.lightMapIntensity),t.aoMap!==void 0&&(this.aoMap=i[t.aoMap]||null),t.aoMapIntensity!==void 0&&(this.aoMapIntensity=t.aoMapIntensity),t.gradientMap!==void 0&&(this.gradientMap=i[t.gradientMap]||null),t.clearcoatMap!==void 0&&(this.clearcoatMap=i[t.clearcoatMap]||null),t.clearcoatRoughnessMap!==void 0&&(this.clearcoatRoughnessMap=i[t.clearcoatRoughnessMap]||null),t.clearcoatNormalMap!==void 0&&(this.clearcoatNormalMap=i[t.clearcoatNormalMap]||null),t.clearcoatNormalScale!==void 0&&(this.clearcoatNormalScale=new Tt().fromArray(t.clearcoatNormalScale)),t.diffuseRoughnessMap!==void 0&&(this.diffuseRoughnessMap=i[t.diffuseRoughnessMap]||null),t.iridescenceMap!==void 0&&(this.iridescenceMap=i[t.iridescenceMap]||null),t.iridescenceThicknessMap!==void 0&&(this.iridescenceThicknessMap=i[t.iridescenceThicknessMap]||null),t.transmissionMap!==void 0&&(this.transmissionMap=i[t.transmissionMap]||null),t.thicknessMap!==void 0&&(this.thicknessMap=i[t.thicknessMap]||null),t.anisotropyMap!==void 0&&(this.anisotropyMap=i[t.anisotropyMap]||null),t.sheenColorMap!==void 0&&(this.sheenColorMap=i[t.sheenColorMap]||null),t.sheenRoughnessMap!==void 0&&(this.sheenRoughnessMap=i[t.sheenRoughnessMap]||null),this}clone(){return new this.constructor().copy(this)}copy(t){this.name=t.name,this.blending=t.blending,this.side=t.side,this.vertexColors=t.vertexColors,this.opacity=t.opacity,this.transparent=t.transparent,this.blendSrc=t.blendSrc,this.blendDst=t.blendDst,this.blendEquation=t.blendEquation,this.blendSrcAlpha=t.blendSrcAlpha,this.blendDstAlpha=t.blendDstAlpha,this.blendEquationAlpha=t.blendEquationAlpha,this.blendColor.copy(t.blendColor),this.blendAlpha=t.blendAlpha,this.depthFunc=t.depthFunc,this.depthTest=t.depthTest,this.depthWrite=t.depthWrite,this.stencilWriteMask=t.stencilWriteMask,this.stencilFunc=t.stencilFunc,this.stencilRef=t.stencilRef,this.stencilFuncMask=t.stencilFuncMask,this.stencilFail=t.stencilFail,this.stencilZFail=t.stencilZFail,this.stencilZPass=t.stencilZPass,this.stencilWrite=t.stencilWrite;let i=t.clippingPlanes,n=null;if(i!==null){let s=i.length;n=new Array(s);for(let r=0;r!==s;++r)n[r]=i[r].clone()}return this.clippingPlanes=n,this.clipIntersection=t.clipIntersection,this.clipShadows=t.clipShadows,this.shadowSide=t.shadowSide,this.colorWrite=t.colorWrite,this.precision=t.precision,this.polygonOffset=t.polygonOffset,this.polygonOffsetFactor=t.polygonOffsetFactor,this.polygonOffsetUnits=t.polygonOffsetUnits,this.dithering=t.dithering,this.alphaTest=t.alphaTest,this.alphaHash=t.alphaHash,this.alphaToCoverage=t.alphaToCoverage,this.premultipliedAlpha=t.premultipliedAlpha,this.forceSinglePass=t.forceSinglePass,this.allowOverride=t.allowOverride,this.visible=t.visible,this.toneMapped=t.toneMapped,this.userData=JSON.parse(JSON.stringify(t.userData)),this}dispose(){this.dispatchEvent({type:"dispose"})}set needsUpdate(t){t===!0&&this.version++}};var kn=new C,xf=new C,hl=new C,ul=new C,on=class{constructor(t=new C,i=new C(0,0,-1)){this.origin=t,this.direction=i}set(t,i){return this.origin.copy(t),this.direction.copy(i),this}copy(t){return this.origin.copy(t.origin),this.direction.copy(t.direction),this}at(t,i){return i.copy(this.origin).addScaledVector(this.direction,t)}lookAt(t){return this.direction.copy(t).sub(this.origin).normalize(),this}recast(t){return this.origin.copy(this.at(t,kn)),this}closestPointToPoint(t,i){i.subVectors(t,this.origin);let n=i.dot(this.direction);return n<0?i.copy(this.origin):i.copy(this.origin).addScaledVector(this.direction,n)}distanceToPoint(t){return Math.sqrt(this.distanceSqToPoint(t))}distanceSqToPoint(t){let i=kn.subVectors(t,this.origin).dot(this.direction);return i<0?this.origin.distanceToSquared(t):(kn.copy(this.origin).addScaledVector(this.direction,i),kn.distanceToSquared(t))}distanceSqToSegment(t,i,n,s){xf.copy(t).add(i).multiplyScalar(.5),hl.copy(i).sub(t).normalize(),ul.copy(this.origin).sub(xf);let r=t.distanceTo(i)*.5,o=-this.direction.dot(hl),a=ul.dot(this.direction),l=-ul.dot(hl),c=ul.lengthSq(),h=Math.abs(1-o*o),u,f,d,g;if(h>0)if(u=o*l-a,f=o*a-l,g=r*h,u>=0)if(f>=-g)if(f<=g){let x=1/h;u*=x,f*=x,d=u*(u+o*f+2*a)+f*(o*u+f+2*l)+c}else f=r,u=Math.max(0,-(o*f+a)),d=-u*u+f*(f+2*l)+c;else f=-r,u=Math.max(0,-(o*f+a)),d=-u*u+f*(f+2*l)+c;else f<=-g?(u=Math.max(0,-(-o*r+a)),f=u>0?-r:Math.min(Math.max(-r,-l),r),d=-u*u+f*(f+2*l)+c):f<=g?(u=0,f=Math.min(Math.max(-r,-l),r),d=f*(f+2*l)+c):(u=Math.max(0,-(o*r+a)),f=u>0?r:Math.min(Math.max(-r,-l),r),d=-u*u+f*(f+2*l)+c);else f=o>0?-r:r,u=Math.max(0,-(o*f+a)),d=-u*u+f*(f+2*l)+c;return n&&n.copy(this.origin).addScaledVector(this.direction,u),s&&s.copy(xf).addScaledVector(hl,f),d}intersectSphere(t,i){if(t.radius<0)return null;kn.subVectors(t.center,this.origin);let n=kn.dot(this.direction),s=kn.dot(kn)-n*n,r=t.radius*t.radius;if(s>r)return null;let o=Math.sqrt(r-s),a=n-o,l=n+o;return l<0?null:a<0?this.at(l,i):this.at(a,i)}intersectsSphere(t){return t.radius<0?!1:this.distanceSqToPoint(t.center)<=t.radius*t.radius}distanceToPlane(t){let i=t.normal.dot(this.direction);if(i===0)return t.distanceToPoint(this.origin)===0?0:null;let n=-(this.origin.dot(t.normal)+t.constant)/i;return n>=0?n:null}intersectPlane(t,i){let n=this.distanceToPlane(t);return n===null?null:this.at(n,i)}intersectsPlane(t){let i=t.distanceToPoint(this.origin);return i===0||t.normal.dot(this.direction)*i<0}intersectBox(t,i){let n,s,r,o,a,l,c=1/this.direction.x,h=1/this.direction.y,u=1/this.direction.z,f=this.origin;return c>=0?(n=(t.min.x-f.x)*c,s=(t.max.x-f.x)*c):(n=(t.max.x-f.x)*c,s=(t.min.x-f.x)*c),h>=0?(r=(t.min.y-f.y)*h,o=(t.max.y-f.y)*h):(r=(t.max.y-f.y)*h,o=(t.min.y-f.y)*h),n>o||r>s||((r>n||isNaN(n))&&(n=r),(o<s||isNaN(s))&&(s=o),u>=0?(a=(t.min.z-f.z)*u,l=(t.max.z-f.z)*u):(a=(t.max.z-f.z)*u,l=(t.min.z-f.z)*u),n>l||a>s)||((a>n||n!==n)&&(n=a),(l<s||s!==s)&&(s=l),s<0)?null:this.at(n>=0?n:s,i)}intersectsBox(t){return this.intersectBox(t,kn)!==null}intersectTriangle(t,i,n,s,r){let o=this.origin,a=this.direction,l=a.x,c=a.y,h=a.z,u=t.x-o.x,f=t.y-o.y,d=t.z-o.z,g=i.x-o.x,x=i.y-o.y,p=i.z-o.z,m=n.x-o.x,y=n.y-o.y,S=n.z-o.z,v=Math.abs(l),w=Math.abs(c),T=Math.abs(h),_,M,L,A,R,P,O,N,B,V,G,tt;if(v>=w&&v>=T?(L=l,P=u,B=g,tt=m,l>=0?(_=c,M=h,A=f,R=d,O=x,N=p,V=y,G=S):(_=h,M=c,A=d,R=f,O=p,N=x,V=S,G=y)):w>=T?(L=c,P=f,B=x,tt=y,c>=0?(_=h,M=l,A=d,R=u,O=p,N=g,V=S,G=m):(_=l,M=h,A=u,R=d,O=g,N=p,V=m,G=S)):(L=h,P=d,B=p,tt=S,h>=0?(_=l,M=c,A=u,R=f,O=g,N=x,V=m,G=y):(_=c,M=l,A=f,R=u,O=x,N=g,V=y,G=m)),L===0)return null;let X=_/L,j=M/L,Q=1/L,vt=A-X*P,Dt=R-j*P,K=O-X*B,ht=N-j*B,xt=V-X*tt,Rt=G-j*tt,mt=xt*ht-Rt*K,Ot=vt*Rt-Dt*xt,De=K*Dt-ht*vt;if(s){if(mt<0||Ot<0||De<0)return null}else if((mt<0||Ot<0||De<0)&&(mt>0||Ot>0||De>0))return null;let Pt=mt+Ot+De;if(Pt===0)return null;let Qt=Q*(mt*P+Ot*B+De*tt);return(Pt>0?Qt<0:Qt>0)?null:this.at(Qt/Pt,r)}applyMatrix4(t){return this.origin.applyMatrix4(t),this.direction.transformDirection(t),this}equals(t){return t.origin.equals(this.origin)&&t.direction.equals(this.direction)}clone(){return new this.constructor().copy(this)}},Yi=class extends Vn{constructor(t){super(),this.isMeshBasicMaterial=!0,this.type="MeshBasicMaterial",this.color=new Xt(16777215),this.map=null,this.lightMap=null,this.lightMapIntensity=1,this.aoMap=null,this.aoMapIntensity=1,this.specularMap=null,this.alphaMap=null,this.envMap=null,this.envMapRotation=new xn,this.combine=Bf,this.reflectivity=1,this.refractionRatio=.98,this.wireframe=!1,this.wireframeLinewidth=1,this.wireframeLinecap="round",this.wireframeLinejoin="round",this.fog=!0,this.setValues(t)}copy(t){return super.copy(t),this.color.copy(t.color),this.map=t.map,this.lightMap=t.lightMap,this.lightMapIntensity=t.lightMapIntensity,this.aoMap=t.aoMap,this.aoMapIntensity=t.aoMapIntensity,this.specularMap=t.specularMap,this.alphaMap=t.alphaMap,this.envMap=t.envMap,this.envMapRotation.copy(t.envMapRotation),this.combine=t.combine,this.reflectivity=t.reflectivity,this.refractionRatio=t.refractionRatio,this.wireframe=t.wireframe,this.wireframeLinewidth=t.wireframeLinewidth,this.wireframeLinecap=t.wireframeLinecap,this.wireframeLinejoin=t.wireframeLinejoin,this.fog=t.fog,this}},vg=new Vt,zs=new on,fl=new vn,Sg=new C,dl=new C,pl=new C,ml=new C,vf=new C,gl=new C,wg=new C,_l=new C,pe=class extends Ai{constructor(t=new Jt,i=new Yi){super(),this.isMesh=!0,this.type="Mesh",this.geometry=t,this.material=i,this.morphTargetDictionary=void 0,this.morphTargetInfluences=void 0,this.count=1,this.updateMorphTargets()}copy(t,i){return super.copy(t,i),t.morphTargetInfluences!==void 0?this.morphTargetInfluences=t.morphTargetInfluences.slice():this.morphTargetInfluences=void 0,t.morphTargetDictionary!==void 0?this.morphTargetDictionary=Object.assign({},t.morphTargetDictionary):this.morphTargetDictionary=void 0,this.material=Array.isArray(t.material)?t.material.slice():t.material,this.geometry=t.geometry,this}updateMorphTargets(){let i=this.geometry.morphAttributes,n=Object.keys(i);if(n.length>0){let s=i[n[0]];if(s!==void 0){this.morphTargetInfluences=[],this.morphTargetDictionary={};for(let r=0,o=s.length;r<o;r++){let a=s[r].name||String(r);this.morphTargetInfluences.push(0),this.morphTargetDictionary[a]=r}}}}getVertexPosition(t,i){let n=this.geometry,s=n.attributes.position,r=n.morphAttributes.position,o=n.morphTargetsRelative;i.fromBufferAttribute(s,t);let a=this.morphTargetInfluences;if(r&&a){gl.set(0,0,0);for(let l=0,c=r.length;l<c;l++){let h=a[l],u=r[l];h!==0&&(vf.fromBufferAttribute(u,t),o?gl.addScaledVector(vf,h):gl.addScaledVector(vf.sub(i),h))}i.add(gl)}return i}intersectsFrustum(t){return t.intersectsObject(this)}raycast(t,i){let n=this.geometry,s=this.material,r=this.matrixWorld;s!==void 0&&(n.boundingSphere===null&&n.computeBoundingSphere(),fl.copy(n.boundingSphere),fl.applyMatrix4(r),zs.copy(t.ray).recast(t.near),!(fl.containsPoint(zs.origin)===!1&&(zs.intersectSphere(fl,Sg)===null||zs.origin.distanceToSquared(Sg)>(t.far-t.near)**2))&&(vg.copy(r).invert(),zs.copy(t.ray).applyMatrix4(vg),!(n.boundingBox!==null&&zs.intersectsBox(n.boundingBox)===!1)&&this._computeIntersections(t,i,zs)))}_computeIntersections(t,i,n){let s,r=this.geometry,o=this.material,a=r.index,l=r.attributes.position,c=r.attributes.uv,h=r.attributes.uv1,u=r.attributes.normal,f=r.groups,d=r.drawRange;if(a!==null)if(Array.isArray(o))for(let g=0,x=f.length;g<x;g++){let p=f[g],m=o[p.materialIndex],y=Math.max(p.start,d.start),S=Math.min(a.count,Math.min(p.start+p.count,d.start+d.count));for(let v=y,w=S;v<w;v+=3){let T=a.getX(v),_=a.getX(v+1),M=a.getX(v+2);s=yl(this,m,t,n,c,h,u,T,_,M),s&&(s.faceIndex=Math.floor(v/3),s.face.materialIndex=p.materialIndex,i.push(s))}}else{let g=Math.max(0,d.start),x=Math.min(a.count,d.start+d.count);for(let p=g,m=x;p<m;p+=3){let y=a.getX(p),S=a.getX(p+1),v=a.getX(p+2);s=yl(this,o,t,n,c,h,u,y,S,v),s&&(s.faceIndex=Math.floor(p/3),i.push(s))}}else if(l!==void 0)if(Array.isArray(o))for(let g=0,x=f.length;g<x;g++){let p=f[g],m=o[p.materialIndex],y=Math.max(p.start,d.start),S=Math.min(l.count,Math.min(p.start+p.count,d.start+d.count));for(let v=y,w=S;v<w;v+=3){let T=v,_=v+1,M=v+2;s=yl(this,m,t,n,c,h,u,T,_,M),s&&(s.faceIndex=Math.floor(v/3),s.face.materialIndex=p.materialIndex,i.push(s))}}else{let g=Math.max(0,d.start),x=Math.min(l.count,d.start+d.count);for(let p=g,m=x;p<m;p+=3){let y=p,S=p+1,v=p+2;s=yl(this,o,t,n,c,h,u,y,S,v),s&&(s.faceIndex=Math.floor(p/3),i.push(s))}}}};function DS(e,t,i,n,s,r,o,a){let l;if(t.side===oi?l=n.intersectTriangle(o,r,s,!0,a):l=n.intersectTriangle(s,r,o,t.side===di,a),l===null)return null;_l.copy(a),_l.applyMatrix4(e.matrixWorld);let c=i.ray.origin.distanceTo(_l);return c<i.near||c>i.far?null:{distance:c,point:_l.clone(),object:e}}function yl(e,t,i,n,s,r,o,a,l,c){e.getVertexPosition(a,dl),e.getVertexPosition(l,pl),e.getVertexPosition(c,ml);let h=DS(e,t,i,n,dl,pl,ml,wg);if(h){let u=new C;$e.getBarycoord(wg,dl,pl,ml,u),s&&(h.uv=$e.getInterpolatedAttribute(s,a,l,c,u,new Tt)),r&&(h.uv1=$e.getInterpolatedAttribute(r,a,l,c,u,new Tt)),o&&(h.normal=$e.getInterpolatedAttribute(o,a,l,c,u,new C),h.normal.dot(n.direction)>0&&h.normal.multiplyScalar(-1));let f={a,b:l,c,normal:new C,materialIndex:0};$e.getNormal(dl,pl,ml,f.normal),h.face=f,h.barycoord=u}return h}var $l=class extends Ei{constructor(t=null,i=1,n=1,s,r,o,a,l,c=ii,h=ii,u,f){super(null,o,a,l,c,h,s,r,u,f),this.isDataTexture=!0,this.image={data:t,width:i,height:n},this.generateMipmaps=!1,this.flipY=!1,this.unpackAlignment=1}};var Hs=new vn,OS=new Tt(.5,.5),xl=new C,Gs=class{constructor(t=new Be,i=new Be,n=new Be,s=new Be,r=new Be,o=new Be){this.planes=[t,i,n,s,r,o]}set(t,i,n,s,r,o){let a=this.planes;return a[0].copy(t),a[1].copy(i),a[2].copy(n),a[3].copy(s),a[4].copy(r),a[5].copy(o),this}copy(t){let i=this.planes;for(let n=0;n<6;n++)i[n].copy(t.planes[n]);return this}setFromProjectionMatrix(t,i=qi,n=!1){let s=this.planes,r=t.elements,o=r[0],a=r[1],l=r[2],c=r[3],h=r[4],u=r[5],f=r[6],d=r[7],g=r[8],x=r[9],p=r[10],m=r[11],y=r[12],S=r[13],v=r[14],w=r[15];if(s[0].setComponents(c-o,d-h,m-g,w-y).normalize(),s[1].setComponents(c+o,d+h,m+g,w+y).normalize(),s[2].setComponents(c+a,d+u,m+x,w+S).normalize(),s[3].setComponents(c-a,d-u,m-x,w-S).normalize(),n)s[4].setComponents(l,f,p,v).normalize(),s[5].setComponents(c-l,d-f,m-p,w-v).normalize();else if(s[4].setComponents(c-l,d-f,m-p,w-v).normalize(),i===qi)s[5].setComponents(c+l,d+f,m+p,w+v).normalize();else if(i===Xo)s[5].setComponents(l,f,p,v).normalize();else throw new Error("THREE.Frustum.setFromProjectionMatrix(): Invalid coordinate system: "+i);return this}intersectsObject(t){if(t.boundingSphere!==void 0)t.boundingSphere===null&&t.computeBoundingSphere(),Hs.copy(t.boundingSphere).applyMatrix4(t.matrixWorld);else{let i=t.geometry;i.boundingSphere===null&&i.computeBoundingSphere(),Hs.copy(i.boundingSphere).applyMatrix4(t.matrixWorld)}return this.intersectsSphere(Hs)}intersectsSprite(t){Hs.center.set(0,0,0);let i=OS.distanceTo(t.center);return Hs.radius=.7071067811865476+i,Hs.applyMatrix4(t.matrixWorld),this.intersectsSphere(Hs)}intersectsSphere(t){let i=this.planes,n=t.center,s=-t.radius;for(let r=0;r<6;r++)if(i[r].distanceToPoint(n)<s)return!1;return!0}intersectsBox(t){let i=this.planes;for(let n=0;n<6;n++){let s=i[n];if(xl.x=s.normal.x>0?t.max.x:t.min.x,xl.y=s.normal.y>0?t.max.y:t.min.y,xl.z=s.normal.z>0?t.max.z:t.min.z,s.distanceToPoint(xl)<0)return!1}return!0}containsPoint(t){let i=this.planes;for(let n=0;n<6;n++)if(i[n].distanceToPoint(t)<0)return!1;return!0}clone(){return new this.constructor().copy(this)}},Mg=new Vt,ql=class e{constructor(){this.coordinateSystem=qi,this._frustums=[],this._count=0}setFromArrayCamera(t){let i=t.cameras,n=this._frustums;for(let s=0;s<i.length;s++){let r=i[s];Mg.multiplyMatrices(r.projectionMatrix,r.matrixWorldInverse),n[s]===void 0&&(n[s]=new Gs),n[s].setFromProjectionMatrix(Mg,r.coordinateSystem,r.reversedDepth)}return this._count=i.length,this}getFrustum(t){return this._frustums[t]}intersectsObject(t){let i=this._frustums;for(let n=0;n<this._count;n++)if(i[n].intersectsObject(t))return!0;return!1}intersectsSprite(t){let i=this._frustums;for(let n=0;n<this._count;n++)if(i[n].intersectsSprite(t))return!0;return!1}intersectsSphere(t){let i=this._frustums;for(let n=0;n<this._count;n++)if(i[n].intersectsSphere(t))return!0;return!1}intersectsBox(t){let i=this._frustums;for(let n=0;n<this._count;n++)if(i[n].intersectsBox(t))return!0;return!1}containsPoint(t){let i=this._frustums;for(let n=0;n<this._count;n++)if(i[n].containsPoint(t))return!0;return!1}copy(t){this.coordinateSystem=t.coordinateSystem;let i=this._frustums,n=t._frustums;for(let s=0;s<t._count;s++)i[s]===void 0&&(i[s]=new Gs),i[s].copy(n[s]);return this._count=t._count,this}clone(){return new e().copy(this)}};var Ri=class extends Vn{constructor(t){super(),this.isLineBasicMaterial=!0,this.type="LineBasicMaterial",this.color=new Xt(16777215),this.map=null,this.linewidth=1,this.linecap="round",this.linejoin="round",this.fog=!0,this.setValues(t)}copy(t){return super.copy(t),this.color.copy(t.color),this.map=t.map,this.linewidth=t.linewidth,this.linecap=t.linecap,this.linejoin=t.linejoin,this.fog=t.fog,this}},Yl=new C,Kl=new C,bg=new Vt,zo=new on,vl=new vn,Sf=new C,Tg=new C,Ws=class extends Ai{constructor(t=new Jt,i=new Ri){super(),this.isLine=!0,this.type="Line",this.geometry=t,this.material=i,this.morphTargetDictionary=void 0,this.morphTargetInfluences=void 0,this.updateMorphTargets()}copy(t,i){return super.copy(t,i),t.morphTargetInfluences!==void 0?this.morphTargetInfluences=t.morphTargetInfluences.slice():this.morphTargetInfluences=void 0,t.morphTargetDictionary!==void 0?this.morphTargetDictionary=Object.assign({},t.morphTargetDictionary):this.morphTargetDictionary=void 0,this.material=Array.isArray(t.material)?t.material.slice():t.material,this.geometry=t.geometry,this}computeLineDistances(){let t=this.geometry;if(t.index===null){let i=t.attributes.position,n=[0];for(let s=1,r=i.count;s<r;s++)Yl.fromBufferAttribute(i,s-1),Kl.fromBufferAttribute(i,s),n[s]=n[s-1],n[s]+=Yl.distanceTo(Kl);t.setAttribute("lineDistance",new ei(n,1))}else Ct("Line.computeLineDistances(): Computation only possible with non-indexed BufferGeometry.");return this}intersectsFrustum(t){return t.intersectsObject(this)}raycast(t,i){let n=this.geometry,s=this.matrixWorld,r=t.params.Line.threshold,o=n.drawRange;if(n.boundingSphere===null&&n.computeBoundingSphere(),vl.copy(n.boundingSphere),vl.applyMatrix4(s),vl.radius+=r,t.ray.intersectsSphere(vl)===!1)return;bg.copy(s).invert(),zo.copy(t.ray).applyMatrix4(bg);let a=r/((this.scale.x+this.scale.y+this.scale.z)/3),l=a*a,c=this.isLineSegments?2:1,h=n.index,f=n.attributes.position;if(h!==null){let d=Math.max(0,o.start),g=Math.min(h.count,o.start+o.count);for(let x=d,p=g-1;x<p;x+=c){let m=h.getX(x),y=h.getX(x+1),S=Sl(this,t,zo,l,m,y,x);S&&i.push(S)}if(this.isLineLoop){let x=h.getX(g-1),p=h.getX(d),m=Sl(this,t,zo,l,x,p,g-1);m&&i.push(m)}}else{let d=Math.max(0,o.start),g=Math.min(f.count,o.start+o.count);for(let x=d,p=g-1;x<p;x+=c){let m=Sl(this,t,zo,l,x,x+1,x);m&&i.push(m)}if(this.isLineLoop){let x=Sl(this,t,zo,l,g-1,d,g-1);x&&i.push(x)}}}updateMorphTargets(){let i=this.geometry.morphAttributes,n=Object.keys(i);if(n.length>0){let s=i[n[0]];if(s!==void 0){this.morphTargetInfluences=[],this.morphTargetDictionary={};for(let r=0,o=s.length;r<o;r++){let a=s[r].name||String(r);this.morphTargetInfluences.push(0),this.morphTargetDictionary[a]=r}}}}};function Sl(e,t,i,n,s,r,o){let a=e.geometry.attributes.position;if(Yl.fromBufferAttribute(a,s),Kl.fromBufferAttribute(a,r),i.distanceSqToSegment(Yl,Kl,Sf,Tg)>n)return;Sf.applyMatrix4(e.matrixWorld);let c=t.ray.origin.distanceTo(Sf);if(!(c<t.near||c>t.far))return{distance:c,point:Tg.clone().applyMatrix4(e.matrixWorld),index:o,face:null,faceIndex:null,barycoord:null,object:e}}var Eg=new C,Ag=new C,Ui=class extends Ws{constructor(t,i){super(t,i),this.isLineSegments=!0,this.type="LineSegments"}computeLineDistances(){let t=this.geometry;if(t.index===null){let i=t.attributes.position,n=[];for(let s=0,r=i.count;s<r;s+=2)Eg.fromBufferAttribute(i,s),Ag.fromBufferAttribute(i,s+1),n[s]=s===0?0:n[s-1],n[s+1]=n[s]+Eg.distanceTo(Ag);t.setAttribute("lineDistance",new ei(n,1))}else Ct("LineSegments.computeLineDistances(): Computation only possible with non-indexed BufferGeometry.");return this}},Zo=class extends Ws{constructor(t,i){super(t,i),this.isLineLoop=!0,this.type="LineLoop"}},os=class extends Vn{constructor(t){super(),this.isPointsMaterial=!0,this.type="PointsMaterial",this.color=new Xt(16777215),this.map=null,this.alphaMap=null,this.size=1,this.sizeAttenuation=!0,this.fog=!0,this.setValues(t)}copy(t){return super.copy(t),this.color.copy(t.color),this.map=t.map,this.alphaMap=t.alphaMap,this.size=t.size,this.sizeAttenuation=t.sizeAttenuation,this.fog=t.fog,this}},Rg=new Vt,Rf=new on,wl=new vn,Ml=new C,Xs=class extends Ai{constructor(t=new Jt,i=new os){super(),this.isPoints=!0,this.type="Points",this.geometry=t,this.material=i,this.morphTargetDictionary=void 0,this.morphTargetInfluences=void 0,this.updateMorphTargets()}copy(t,i){return super.copy(t,i),t.morphTargetInfluences!==void 0?this.morphTargetInfluences=t.morphTargetInfluences.slice():this.morphTargetInfluences=void 0,t.morphTargetDictionary!==void 0?this.morphTargetDictionary=Object.assign({},t.morphTargetDictionary):this.morphTargetDictionary=void 0,this.material=Array.isArray(t.material)?t.material.slice():t.material,this.geometry=t.geometry,this}intersectsFrustum(t){return t.intersectsObject(this)}raycast(t,i){let n=this.geometry,s=this.matrixWorld,r=t.params.Points.threshold,o=n.drawRange;if(n.boundingSphere===null&&n.computeBoundingSphere(),wl.copy(n.boundingSphere),wl.applyMatrix4(s),wl.radius+=r,t.ray.intersectsSphere(wl)===!1)return;Rg.copy(s).invert(),Rf.copy(t.ray).applyMatrix4(Rg);let a=r/((this.scale.x+this.scale.y+this.scale.z)/3),l=a*a,c=n.index,u=n.attributes.position;if(c!==null){let f=Math.max(0,o.start),d=Math.min(c.count,o.start+o.count);for(let g=f,x=d;g<x;g++){let p=c.getX(g);Ml.fromBufferAttribute(u,p),Cg(Ml,p,l,s,t,i,this)}}else{let f=Math.max(0,o.start),d=Math.min(u.count,o.start+o.count);for(let g=f,x=d;g<x;g++)Ml.fromBufferAttribute(u,g),Cg(Ml,g,l,s,t,i,this)}}updateMorphTargets(){let i=this.geometry.morphAttributes,n=Object.keys(i);if(n.length>0){let s=i[n[0]];if(s!==void 0){this.morphTargetInfluences=[],this.morphTargetDictionary={};for(let r=0,o=s.length;r<o;r++){let a=s[r].name||String(r);this.morphTargetInfluences.push(0),this.morphTargetDictionary[a]=r}}}}};function Cg(e,t,i,n,s,r,o){let a=Rf.distanceSqToPoint(e);if(a<i){let l=new C;Rf.closestPointToPoint(e,l),l.applyMatrix4(n);let c=s.ray.origin.distanceTo(l);if(c<s.near||c>s.far)return;r.push({distance:c,distanceToRay:Math.sqrt(a),point:l,index:t,face:null,faceIndex:null,barycoord:null,object:o})}}var Jo=class extends Ei{constructor(t=[],i=Zs,n,s,r,o,a,l,c,h){super(t,i,n,s,r,o,a,l,c,h),this.isCubeTexture=!0,this.flipY=!1}get images(){return this.image}set images(t){this.image=t}};var Gn=class extends Ei{constructor(t,i,n=an,s,r,o,a=ii,l=ii,c,h=Hn,u=1){if(h!==Hn&&h!==Xn)throw new Error("THREE.DepthTexture: format must be either THREE.DepthFormat or THREE.DepthStencilFormat");let f={width:t,height:i,depth:u};super(f,s,r,o,a,l,h,n,c),this.isDepthTexture=!0,this.flipY=!1,this.generateMipmaps=!1,this.compareFunction=null}copy(t){return super.copy(t),this.source=new Ir(Object.assign({},t.image)),this.compareFunction=t.compareFunction,this}toJSON(t){let i=super.toJSON(t);return i.compareFunction=this.compareFunction,i}},jo=class extends Gn{constructor(t,i=an,n=Zs,s,r,o=ii,a=ii,l,c=Hn){let h={width:t,height:t,depth:1},u=[h,h,h,h,h,h];super(t,t,i,n,s,r,o,a,l,c),this.image=u,this.isCubeDepthTexture=!0,this.isCubeTexture=!0}get images(){return this.image}set images(t){this.image=t}},Qo=class extends Ei{constructor(t=null){super(),this.sourceTexture=t,this.isExternalTexture=!0}copy(t){return super.copy(t),this.sourceTexture=t.sourceTexture,this}},Or=class e extends Jt{constructor(t=1,i=1,n=1,s=1,r=1,o=1){super(),this.type="BoxGeometry",this.parameters={width:t,height:i,depth:n,widthSegments:s,heightSegments:r,depthSegments:o};let a=this;s=Math.floor(s),r=Math.floor(r),o=Math.floor(o);let l=[],c=[],h=[],u=[],f=0,d=0;g("z","y","x",-1,-1,n,i,t,o,r,0),g("z","y","x",1,-1,n,i,-t,o,r,1),g("x","z","y",1,1,t,n,i,s,o,2),g("x","z","y",1,-1,t,n,-i,s,o,3),g("x","y","z",1,-1,t,i,n,s,r,4),g("x","y","z",-1,-1,t,i,-n,s,r,5),this.setIndex(l),this.setAttribute("position",new ei(c,3)),this.setAttribute("normal",new ei(h,3)),this.setAttribute("uv",new ei(u,2));function g(x,p,m,y,S,v,w,T,_,M,L){let A=v/_,R=w/M,P=v/2,O=w/2,N=T/2,B=_+1,V=M+1,G=0,tt=0,X=new C;for(let j=0;j<V;j++){let Q=j*R-O;for(let vt=0;vt<B;vt++){let Dt=vt*A-P;X[x]=Dt*y,X[p]=Q*S,X[m]=N,c.push(X.x,X.y,X.z),X[x]=0,X[p]=0,X[m]=T>0?1:-1,h.push(X.x,X.y,X.z),u.push(vt/_),u.push(1-j/M),G+=1}}for(let j=0;j<M;j++)for(let Q=0;Q<_;Q++){let vt=f+Q+B*j,Dt=f+Q+B*(j+1),K=f+(Q+1)+B*(j+1),ht=f+(Q+1)+B*j;l.push(vt,Dt,ht),l.push(Dt,K,ht),tt+=6}a.addGroup(d,tt,L),d+=tt,f+=G}}copy(t){return super.copy(t),this.parameters=Object.assign({},t.parameters),this}static fromJSON(t){return new e(t.width,t.height,t.depth,t.widthSegments,t.heightSegments,t.depthSegments)}};var bl=new C,Tl=new C,wf=new C,El=new $e,ta=class extends Jt{constructor(t=null,i=1){if(super(),this.type="EdgesGeometry",this.parameters={geometry:t,thresholdAngle:i},t!==null){let s=Math.pow(10,4),r=Math.cos(Er*i),o=t.getIndex(),a=t.getAttribute("position"),l=o?o.count:a.count,c=[0,0,0],h=["a","b","c"],u=new Array(3),f=new Map,d=[];for(let g=0;g<l;g+=3){o?(c[0]=o.getX(g),c[1]=o.getX(g+1),c[2]=o.getX(g+2)):(c[0]=g,c[1]=g+1,c[2]=g+2);let{a:x,b:p,c:m}=El;if(x.fromBufferAttribute(a,c[0]),p.fromBufferAttribute(a,c[1]),m.fromBufferAttribute(a,c[2]),El.getNormal(wf),u[0]=`${Math.round(x.x*s)},${Math.round(x.y*s)},${Math.round(x.z*s)}`,u[1]=`${Math.round(p.x*s)},${Math.round(p.y*s)},${Math.round(p.z*s)}`,u[2]=`${Math.round(m.x*s)},${Math.round(m.y*s)},${Math.round(m.z*s)}`,!(u[0]===u[1]||u[1]===u[2]||u[2]===u[0]))for(let y=0;y<3;y++){let S=(y+1)%3,v=u[y],w=u[S],T=El[h[y]],_=El[h[S]],M=`${v}_${w}`,L=`${w}_${v}`,A=f.get(L);A?(wf.dot(A.normal)<=r&&(d.push(T.x,T.y,T.z),d.push(_.x,_.y,_.z)),f.set(L,null)):f.has(M)||f.set(M,{index0:c[y],index1:c[S],normal:wf.clone()})}}for(let g of f.values())if(g){let{index0:x,index1:p}=g;bl.fromBufferAttribute(a,x),Tl.fromBufferAttribute(a,p),d.push(bl.x,bl.y,bl.z),d.push(Tl.x,Tl.y,Tl.z)}this.setAttribute("position",new ei(d,3))}}copy(t){return super.copy(t),this.parameters=Object.assign({},t.parameters),this}};var $s=class e extends Jt{constructor(t=1,i=1,n=1,s=1){super(),this.type="PlaneGeometry",this.parameters={width:t,height:i,widthSegments:n,heightSegments:s};let r=t/2,o=i/2,a=Math.floor(n),l=Math.floor(s),c=a+1,h=l+1,u=t/a,f=i/l,d=[],g=[],x=[],p=[];for(let m=0;m<h;m++){let y=m*f-o;for(let S=0;S<c;S++){let v=S*u-r;g.push(v,-y,0),x.push(0,0,1),p.push(S/a),p.push(1-m/l)}}for(let m=0;m<l;m++)for(let y=0;y<a;y++){let S=y+c*m,v=y+c*(m+1),w=y+1+c*(m+1),T=y+1+c*m;d.push(S,v,T),d.push(v,w,T)}this.setIndex(d),this.setAttribute("position",new ei(g,3)),this.setAttribute("normal",new ei(x,3)),this.setAttribute("uv",new ei(p,2))}copy(t){return super.copy(t),this.parameters=Object.assign({},t.parameters),this}static fromJSON(t){return new e(t.width,t.height,t.widthSegments,t.heightSegments)}};var ea=class e extends Jt{constructor(t=1,i=32,n=16,s=0,r=Math.PI*2,o=0,a=Math.PI){super(),this.type="SphereGeometry",this.parameters={radius:t,widthSegments:i,heightSegments:n,phiStart:s,phiLength:r,thetaStart:o,thetaLength:a},i=Math.max(3,Math.floor(i)),n=Math.max(2,Math.floor(n));let l=Math.min(o+a,Math.PI),c=0,h=[],u=new C,f=new C,d=[],g=[],x=[],p=[];for(let m=0;m<=n;m++){let y=[],S=m/n,v=o+S*a,w=t*Math.cos(v),T=Math.sqrt(t*t-w*w),_=0;m===0&&o===0?_=.5/i:m===n&&l===Math.PI&&(_=-.5/i);for(let M=0;M<=i;M++){let L=M/i,A=s+L*r;u.x=-T*Math.cos(A),u.y=w,u.z=T*Math.sin(A),g.push(u.x,u.y,u.z),f.copy(u).normalize(),x.push(f.x,f.y,f.z),p.push(L+_,1-S),y.push(c++)}h.push(y)}for(let m=0;m<n;m++)for(let y=0;y<i;y++){let S=h[m][y+1],v=h[m][y],w=h[m+1][y],T=h[m+1][y+1];(m!==0||o>0)&&d.push(S,v,T),(m!==n-1||l<Math.PI)&&d.push(v,w,T)}this.setIndex(d),this.setAttribute("position",new ei(g,3)),this.setAttribute("normal",new ei(x,3)),this.setAttribute("uv",new ei(p,2))}copy(t){return super.copy(t),this.parameters=Object.assign({},t.parameters),this}static fromJSON(t){return new e(t.radius,t.widthSegments,t.heightSegments,t.phiStart,t.phiLength,t.thetaStart,t.thetaLength)}};function js(e){let t={};for(let i in e){t[i]={};for(let n in e[i]){let s=e[i][n];if(Pg(s))s.isRenderTargetTexture?(Ct("UniformsUtils: Textures of render targets cannot be cloned via cloneUniforms() or mergeUniforms()."),t[i][n]=null):t[i][n]=s.clone();else if(Array.isArray(s))if(Pg(s[0])){let r=[];for(let o=0,a=s.length;o<a;o++)r[o]=s[o].clone();t[i][n]=r}else t[i][n]=s.slice();else t[i][n]=s}}return t}function pi(e){let t={};for(let i=0;i<e.length;i++){let n=js(e[i]);for(let s in n)t[s]=n[s]}return t}function Pg(e){return e&&(e.isColor||e.isMatrix3||e.isMatrix4||e.isVector2||e.isVector3||e.isVector4||e.isTexture||e.isQuaternion)}function US(e){let t=[];for(let i=0;i<e.length;i++)t.push(e[i].clone());return t}function ud(e){let t=e.getRenderTarget();return t===null?e.outputColorSpace:t.isXRRenderTarget===!0?t.texture.colorSpace:Wt.workingColorSpace}var b_={clone:js,merge:pi},FS=`void main() {
	gl_Position = projectionMatrix * modelViewMatrix * vec4( position, 1.0 );
}`,BS=`void main() {
	gl_FragColor = vec4( 1.0, 0.0, 0.0, 1.0 );
}`,qe=class extends Vn{constructor(t){super(),this.isShaderMaterial=!0,this.type="ShaderMaterial",this.defines={},this.uniforms={},this.uniformsGroups=[],this.vertexShader=FS,this.fragmentShader=BS,this.linewidth=1,this.wireframe=!1,this.wireframeLinewidth=1,this.fog=!1,this.lights=!1,this.clipping=!1,this.forceSinglePass=!0,this.extensions={clipCullDistance:!1,multiDraw:!1},this.defaultAttributeValues={color:[1,1,1],uv:[0,0],uv1:[0,0]},this.index0AttributeName=void 0,this.uniformsNeedUpdate=!1,this.glslVersion=null,t!==void 0&&this.setValues(t)}copy(t){return super.copy(t),this.fragmentShader=t.fragmentShader,this.vertexShader=t.vertexShader,this.uniforms=js(t.uniforms),this.uniformsGroups=US(t.uniformsGroups),this.defines=Object.assign({},t.defines),this.wireframe=t.wireframe,this.wireframeLinewidth=t.wireframeLinewidth,this.fog=t.fog,this.lights=t.lights,this.clipping=t.clipping,this.extensions=Object.assign({},t.extensions),this.glslVersion=t.glslVersion,this.defaultAttributeValues=Object.assign({},t.defaultAttributeValues),this.index0AttributeName=t.index0AttributeName,this.uniformsNeedUpdate=t.uniformsNeedUpdate,this}toJSON(t){let i=super.toJSON(t);i.glslVersion=this.glslVersion,i.uniforms={};for(let s in this.uniforms){let o=this.uniforms[s].value;o&&o.isTexture?i.uniforms[s]={type:"t",value:o.toJSON(t).uuid}:o&&o.isColor?i.uniforms[s]={type:"c",value:o.getHex()}:o&&o.isVector2?i.uniforms[s]={type:"v2",value:o.toArray()}:o&&o.isVector3?i.uniforms[s]={type:"v3",value:o.toArray()}:o&&o.isVector4?i.uniforms[s]={type:"v4",value:o.toArray()}:o&&o.isMatrix3?i.uniforms[s]={type:"m3",value:o.toArray()}:o&&o.isMatrix4?i.uniforms[s]={type:"m4",value:o.toArray()}:i.uniforms[s]={value:o}}Object.keys(this.defines).length>0&&(i.defines=this.defines),i.vertexShader=this.vertexShader,i.fragmentShader=this.fragmentShader,i.lights=this.lights,i.clipping=this.clipping;let n={};for(let s in this.extensions)this.extensions[s]===!0&&(n[s]=!0);return Object.keys(n).length>0&&(i.extensions=n),i}fromJSON(t,i){if(super.fromJSON(t,i),t.uniforms!==void 0)for(let n in t.uniforms){let s=t.uniforms[n];switch(this.uniforms[n]={},s.type){case"t":this.uniforms[n].value=i[s.value]||null;break;case"c":this.uniforms[n].value=new Xt().setHex(s.value);break;case"v2":this.uniforms[n].value=new Tt().fromArray(s.value);break;case"v3":this.uniforms[n].value=new C().fromArray(s.value);break;case"v4":this.uniforms[n].value=new be().fromArray(s.value);break;case"m3":this.uniforms[n].value=new Nt().fromArray(s.value);break;case"m4":this.uniforms[n].value=new Vt().fromArray(s.value);break;default:this.uniforms[n].value=s.value}}if(t.defines!==void 0&&(this.defines=t.defines),t.vertexShader!==void 0&&(this.vertexShader=t.vertexShader),t.fragmentShader!==void 0&&(this.fragmentShader=t.fragmentShader),t.glslVersion!==void 0&&(this.glslVersion=t.glslVersion),t.extensions!==void 0)for(let n in t.extensions)this.extensions[n]=t.extensions[n];return t.lights!==void 0&&(this.lights=t.lights),t.clipping!==void 0&&(this.clipping=t.clipping),this}},Zl=class extends qe{constructor(t){super(t),this.isRawShaderMaterial=!0,this.type="RawShaderMaterial"}};var Jl=class extends Vn{constructor(t){super(),this.isMeshDepthMaterial=!0,this.type="MeshDepthMaterial",this.depthPacking=l_,this.map=null,this.alphaMap=null,this.displacementMap=null,this.displacementScale=1,this.displacementBias=0,this.wireframe=!1,this.wireframeLinewidth=1,this.setValues(t)}copy(t){return super.copy(t),this.depthPacking=t.depthPacking,this.map=t.map,this.alphaMap=t.alphaMap,this.displacementMap=t.displacementMap,this.displacementScale=t.displacementScale,this.displacementBias=t.displacementBias,this.wireframe=t.wireframe,this.wireframeLinewidth=t.wireframeLinewidth,this}},jl=class extends Vn{constructor(t){super(),this.isMeshDistanceMaterial=!0,this.type="MeshDistanceMaterial",this.map=null,this.alphaMap=null,this.displacementMap=null,this.displacementScale=1,this.displacementBias=0,this.setValues(t)}copy(t){return super.copy(t),this.map=t.map,this.alphaMap=t.alphaMap,this.displacementMap=t.displacementMap,this.displacementScale=t.displacementScale,this.displacementBias=t.displacementBias,this}};function Sr(e,t){return!e||e.constructor===t?e:typeof t.BYTES_PER_ELEMENT=="number"?new t(e):Array.prototype.slice.call(e)}function Al(e){return e!==void 0&&e.inTangents!==void 0&&e.outTangents!==void 0}var as=class{constructor(t,i,n,s){this.parameterPositions=t,this._cachedIndex=0,this.resultBuffer=s!==void 0?s:new i.constructor(n),this.sampleValues=i,this.valueSize=n,this.settings=null,this.DefaultSettings_={}}evaluate(t){let i=this.parameterPositions,n=this._cachedIndex,s=i[n],r=i[n-1];i:{t:{let o;e:{n:if(!(t<s)){for(let a=n+2;;){if(s===void 0){if(t<r)break n;return n=i.length,this._cachedIndex=n,this.copySampleValue_(n-1)}if(n===a)break;if(r=s,s=i[++n],t<s)break t}o=i.length;break e}if(!(t>=r)){let a=i[1];t<a&&(n=2,r=a);for(let l=n-2;;){if(r===void 0)return this._cachedIndex=0,this.copySampleValue_(0);if(n===l)break;if(s=r,r=i[--n-1],t>=r)break t}o=n,n=0;break e}break i}for(;n<o;){let a=n+o>>>1;t<i[a]?o=a:n=a+1}if(s=i[n],r=i[n-1],r===void 0)return this._cachedIndex=0,this.copySampleValue_(0);if(s===void 0)return n=i.length,this._cachedIndex=n,this.copySampleValue_(n-1)}this._cachedIndex=n,this.intervalChanged_(n,r,s)}return this.interpolate_(n,r,t,s)}getSettings_(){return this.settings||this.DefaultSettings_}copySampleValue_(t){let i=this.resultBuffer,n=this.sampleValues,s=this.valueSize,r=t*s;for(let o=0;o!==s;++o)i[o]=n[r+o];return i}interpolate_(){throw new Error("THREE.Interpolant: Call to abstract method.")}intervalChanged_(){}},Ql=class extends as{constructor(t,i,n,s){super(t,i,n,s),this._weightPrev=-0,this._offsetPrev=-0,this._weightNext=-0,this._offsetNext=-0,this.DefaultSettings_={endingStart:Tf,endingEnd:Tf}}intervalChanged_(t,i,n){let s=this.parameterPositions,r=t-2,o=t+1,a=s[r],l=s[o];if(a===void 0)switch(this.getSettings_().endingStart){case Ef:r=t,a=2*i-n;break;case Af:r=s.length-2,a=i+s[r]-s[r+1];break;default:r=t,a=n}if(l===void 0)switch(this.getSettings_().endingEnd){case Ef:o=t,l=2*n-i;break;case Af:o=1,l=n+s[1]-s[0];break;default:o=t-1,l=i}let c=(n-i)*.5,h=this.valueSize;this._weightPrev=c/(i-a),this._weightNext=c/(l-n),this._offsetPrev=r*h,this._offsetNext=o*h}interpolate_(t,i,n,s){let r=this.resultBuffer,o=this.sampleValues,a=this.valueSize,l=t*a,c=l-a,h=this._offsetPrev,u=this._offsetNext,f=this._weightPrev,d=this._weightNext,g=(n-i)/(s-i),x=g*g,p=x*g,m=-f*p+2*f*x-f*g,y=(1+f)*p+(-1.5-2*f)*x+(-.5+f)*g+1,S=(-1-d)*p+(1.5+d)*x+.5*g,v=d*p-d*x;for(let w=0;w!==a;++w)r[w]=m*o[h+w]+y*o[c+w]+S*o[l+w]+v*o[u+w];return r}},tc=class extends as{constructor(t,i,n,s){super(t,i,n,s)}interpolate_(t,i,n,s){let r=this.resultBuffer,o=this.sampleValues,a=this.valueSize,l=t*a,c=l-a,h=(n-i)/(s-i),u=1-h;for(let f=0;f!==a;++f)r[f]=o[c+f]*u+o[l+f]*h;return r}},ec=class extends as{constructor(t,i,n,s){super(t,i,n,s)}interpolate_(t){return this.copySampleValue_(t-1)}},ic=class extends as{interpolate_(t,i,n,s){let r=this.resultBuffer,o=this.sampleValues,a=this.valueSize,l=t*a,c=l-a,h=this.inTangents,u=this.outTangents;if(!h||!u){let g=(n-i)/(s-i),x=1-g;for(let p=0;p!==a;++p)r[p]=o[c+p]*x+o[l+p]*g;return r}let f=a*2,d=t-1;for(let g=0;g!==a;++g){let x=o[c+g],p=o[l+g],m=d*f+g*2,y=u[m],S=u[m+1],v=t*f+g*2,w=h[v],T=h[v+1],_=zS(n,i,y,w,s);r[g]=T_(_,x,S,T,p)}return r}};function T_(e,t,i,n,s){let r=1-e;return r*r*r*t+3*r*r*e*i+3*r*e*e*n+e*e*e*s}function kS(e,t,i,n,s){let r=1-e;return 3*r*r*(i-t)+6*r*e*(n-i)+3*e*e*(s-n)}function zS(e,t,i,n,s){let r=(e-t)/(s-t);for(let o=0;o<8;o++){let a=T_(r,t,i,n,s)-e;if(Math.abs(a)<1e-10)break;let l=kS(r,t,i,n,s);if(Math.abs(l)<1e-10)break;r=Math.max(0,Math.min(1,r-a/l))}return r}var Fi=class{constructor(t,i,n,s){if(t===void 0)throw new Error("THREE.KeyframeTrack: track name is undefined");if(i===void 0||i.length===0)throw new Error("THREE.KeyframeTrack: no keyframes in track named "+t);this.name=t,this.times=Sr(i,this.TimeBufferType),this.values=Sr(n,this.ValueBufferType),this.setInterpolation(s||this.DefaultInterpolation)}static toJSON(t){let i=t.constructor,n;if(i.toJSON!==this.toJSON)n=i.toJSON(t);else{n={name:t.name,times:Sr(t.times,Array),values:Sr(t.values,Array)};let s=t.getInterpolation();s!==t.DefaultInterpolation&&(n.interpolation=s),Al(t.settings)&&(n.settings={inTangents:Sr(t.settings.inTangents,Array),outTangents:Sr(t.settings.outTangents,Array)})}return n.type=t.ValueTypeName,n}InterpolantFactoryMethodDiscrete(t){return new ec(this.times,this.values,this.getValueSize(),t)}InterpolantFactoryMethodLinear(t){return new tc(this.times,this.values,this.getValueSize(),t)}InterpolantFactoryMethodSmooth(t){return new Ql(this.times,this.values,this.getValueSize(),t)}InterpolantFactoryMethodBezier(t){let i=new ic(this.times,this.values,this.getValueSize(),t);return this.settings&&(i.inTangents=this.settings.inTangents,i.outTangents=this.settings.outTangents),i}setInterpolation(t){let i;switch(t){case Go:i=this.InterpolantFactoryMethodDiscrete;break;case Vl:i=this.InterpolantFactoryMethodLinear;break;case Il:i=this.InterpolantFactoryMethodSmooth;break;case bf:i=this.InterpolantFactoryMethodBezier;break}if(i===void 0){let n="unsupported interpolation for "+this.ValueTypeName+" keyframe track named "+this.name;if(this.createInterpolant===void 0)if(t!==this.DefaultInterpolation)this.setInterpolation(this.DefaultInterpolation);else throw new Error(n);return Ct("KeyframeTrack:",n),this}return this.createInterpolant=i,this}getInterpolation(){switch(this.createInterpolant){case this.InterpolantFactoryMethodDiscrete:return Go;case this.InterpolantFactoryMethodLinear:return Vl;case this.InterpolantFactoryMethodSmooth:return Il;case this.InterpolantFactoryMethodBezier:return bf}}getValueSize(){return this.values.length/this.times.length}shift(t){if(t!==0){let i=this.times;for(let n=0,s=i.length;n!==s;++n)i[n]+=t;Al(this.settings)&&(Ig(this.settings.inTangents,t),Ig(this.settings.outTangents,t))}return this}scale(t){if(t!==1){let i=this.times;for(let n=0,s=i.length;n!==s;++n)i[n]*=t;Al(this.settings)&&(Lg(this.settings.inTangents,t),Lg(this.settings.outTangents,t))}return this}trim(t,i){let n=this.times,s=n.length,r=0,o=s-1;for(;r!==s&&n[r]<t;)++r;for(;o!==-1&&n[o]>i;)--o;if(++o,r!==0||o!==s){r>=o&&(o=Math.max(o,1),r=o-1);let a=this.getValueSize();this.times=n.slice(r,o),this.values=this.values.slice(r*a,o*a)}return this}validate(){let t=!0,i=this.getValueSize();i-Math.floor(i)!==0&&(Lt("KeyframeTrack: Invalid value size in track.",this),t=!1);let n=this.times,s=this.values,r=n.length;r===0&&(Lt("KeyframeTrack: Track is empty.",this),t=!1);let o=null;for(let a=0;a!==r;a++){let l=n[a];if(typeof l=="number"&&isNaN(l)){Lt("KeyframeTrack: Time is not a valid number.",this,a,l),t=!1;break}if(o!==null&&o>l){Lt("KeyframeTrack: Out of order keys.",this,a,l,o),t=!1;break}o=l}if(s!==void 0&&iS(s))for(let a=0,l=s.length;a!==l;++a){let c=s[a];if(isNaN(c)){Lt("KeyframeTrack: Value is not a valid number.",this,a,c),t=!1;break}}return t}optimize(){let t=this.times.slice(),i=this.values.slice(),n=this.getValueSize(),s=this.getInterpolation()===Il,r=t.length-1,o=1;for(let a=1;a<r;++a){let l=!1,c=t[a],h=t[a+1];if(c!==h&&(a!==1||c!==t[0]))if(s)l=!0;else{let u=a*n,f=u-n,d=u+n;for(let g=0;g!==n;++g){let x=i[u+g];if(x!==i[f+g]||x!==i[d+g]){l=!0;break}}}if(l){if(a!==o){t[o]=t[a];let u=a*n,f=o*n;for(let d=0;d!==n;++d)i[f+d]=i[u+d]}++o}}if(r>0){t[o]=t[r];for(let a=r*n,l=o*n,c=0;c!==n;++c)i[l+c]=i[a+c];++o}return o!==t.length?(this.times=t.slice(0,o),this.values=i.slice(0,o*n)):(this.times=t,this.values=i),this}clone(){let t=this.times.slice(),i=this.values.slice(),n=this.constructor,s=new n(this.name,t,i);return s.createInterpolant=this.createInterpolant,Al(this.settings)&&(s.settings={inTangents:this.settings.inTangents.slice(),outTangents:this.settings.outTangents.slice()}),s}};function Ig(e,t){for(let i=0,n=e.length;i!==n;i+=2)e[i]+=t}function Lg(e,t){for(let i=0,n=e.length;i!==n;i+=2)e[i]*=t}Fi.prototype.ValueTypeName="";Fi.prototype.TimeBufferType=Float32Array;Fi.prototype.ValueBufferType=Float32Array;Fi.prototype.DefaultInterpolation=Vl;var ls=class extends Fi{constructor(t,i,n){super(t,i,n)}};ls.prototype.ValueTypeName="bool";ls.prototype.ValueBufferType=Array;ls.prototype.DefaultInterpolation=Go;ls.prototype.InterpolantFactoryMethodLinear=void 0;ls.prototype.InterpolantFactoryMethodSmooth=void 0;var nc=class extends Fi{constructor(t,i,n,s){super(t,i,n,s)}};nc.prototype.ValueTypeName="color";var sc=class extends Fi{constructor(t,i,n,s){super(t,i,n,s)}};sc.prototype.ValueTypeName="number";var rc=class extends as{constructor(t,i,n,s){super(t,i,n,s)}interpolate_(t,i,n,s){let r=this.resultBuffer,o=this.sampleValues,a=this.valueSize,l=(n-i)/(s-i),c=t*a;for(let h=c+a;c!==h;c+=4)ni.slerpFlat(r,0,o,c-a,o,c,l);return r}},ia=class extends Fi{constructor(t,i,n,s){super(t,i,n,s)}InterpolantFactoryMethodLinear(t){return new rc(this.times,this.values,this.getValueSize(),t)}};ia.prototype.ValueTypeName="quaternion";ia.prototype.InterpolantFactoryMethodSmooth=void 0;var cs=class extends Fi{constructor(t,i,n){super(t,i,n)}};cs.prototype.ValueTypeName="string";cs.prototype.ValueBufferType=Array;cs.prototype.DefaultInterpolation=Go;cs.prototype.InterpolantFactoryMethodLinear=void 0;cs.prototype.InterpolantFactoryMethodSmooth=void 0;var oc=class extends Fi{constructor(t,i,n,s){super(t,i,n,s)}};oc.prototype.ValueTypeName="vector";var ac=class{constructor(t,i,n){let s=this,r=!1,o=0,a=0,l,c=[];this.onStart=void 0,this.onLoad=t,this.onProgress=i,this.onError=n,this._abortController=null,this.itemStart=function(h){a++,r===!1&&s.onStart!==void 0&&s.onStart(h,o,a),r=!0},this.itemEnd=function(h){o++,s.onProgress!==void 0&&s.onProgress(h,o,a),o===a&&(r=!1,s.onLoad!==void 0&&s.onLoad())},this.itemError=function(h){s.onError!==void 0&&s.onError(h)},this.resolveURL=function(h){return h=h.normalize("NFC"),l?l(h):h},this.setURLModifier=function(h){return l=h,this},this.addHandler=function(h,u){return c.push(h,u),this},this.removeHandler=function(h){let u=c.indexOf(h);return u!==-1&&c.splice(u,2),this},this.getHandler=function(h){for(let u=0,f=c.length;u<f;u+=2){let d=c[u],g=c[u+1];if(d.global&&(d.lastIndex=0),d.test(h))return g}return null},this.abort=function(){return this.abortController.abort(),this._abortController=null,this}}get abortController(){return this._abortController||(this._abortController=new AbortController),this._abortController}},E_=new ac,lc=class{constructor(t){this.manager=t!==void 0?t:E_,this.crossOrigin="anonymous",this.withCredentials=!1,this.path="",this.resourcePath="",this.requestHeader={},this.priority="auto",this.cache="default",typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("observe",{detail:this}))}load(){}loadAsync(t,i){let n=this;return new Promise(function(s,r){n.load(t,s,i,r)})}parse(){}setCrossOrigin(t){return this.crossOrigin=t,this}setWithCredentials(t){return this.withCredentials=t,this}setPath(t){return this.path=t,this}setResourcePath(t){return this.resourcePath=t,this}setRequestHeader(t){return this.requestHeader=t,this}setPriority(t){return this.priority=t,this}setCache(t){return this.cache=t,this}abort(){return this}};lc.DEFAULT_MATERIAL_NAME="__DEFAULT";var Rl=new C,Cl=new ni,_n=new C,na=class extends Ai{constructor(){super(),this.isCamera=!0,this.type="Camera",this.matrixWorldInverse=new Vt,this.projectionMatrix=new Vt,this.projectionMatrixInverse=new Vt,this.coordinateSystem=qi,this._reversedDepth=!1}get reversedDepth(){return this._reversedDepth}copy(t,i){return super.copy(t,i),this.matrixWorldInverse.copy(t.matrixWorldInverse),this.projectionMatrix.copy(t.projectionMatrix),this.projectionMatrixInverse.copy(t.projectionMatrixInverse),this.coordinateSystem=t.coordinateSystem,this}getWorldDirection(t){return super.getWorldDirection(t).negate()}updateMatrixWorld(t){super.updateMatrixWorld(t),this.matrixWorld.decompose(Rl,Cl,_n),_n.x===1&&_n.y===1&&_n.z===1?this.matrixWorldInverse.copy(this.matrixWorld).invert():this.matrixWorldInverse.compose(Rl,Cl,_n.set(1,1,1)).invert()}updateWorldMatrix(t,i,n=!1){super.updateWorldMatrix(t,i,n),this.matrixWorld.decompose(Rl,Cl,_n),_n.x===1&&_n.y===1&&_n.z===1?this.matrixWorldInverse.copy(this.matrixWorld).invert():this.matrixWorldInverse.compose(Rl,Cl,_n.set(1,1,1)).invert()}clone(){return new this.constructor().copy(this)}},rs=new C,Ng=new Tt,Dg=new Tt,yi=class extends na{constructor(t=50,i=1,n=.1,s=2e3){super(),this.isPerspectiveCamera=!0,this.type="PerspectiveCamera",this.fov=t,this.zoom=1,this.near=n,this.far=s,this.focus=10,this.aspect=i,this.view=null,this.filmGauge=35,this.filmOffset=0,this.updateProjectionMatrix()}copy(t,i){return super.copy(t,i),this.fov=t.fov,this.zoom=t.zoom,this.near=t.near,this.far=t.far,this.focus=t.focus,this.aspect=t.aspect,this.view=t.view===null?null:Object.assign({},t.view),this.filmGauge=t.filmGauge,this.filmOffset=t.filmOffset,this}setFocalLength(t){let i=.5*this.getFilmHeight()/t;this.fov=Pr*2*Math.atan(i),this.updateProjectionMatrix()}getFocalLength(){let t=Math.tan(Er*.5*this.fov);return .5*this.getFilmHeight()/t}getEffectiveFOV(){return Pr*2*Math.atan(Math.tan(Er*.5*this.fov)/this.zoom)}getFilmWidth(){return this.filmGauge*Math.min(this.aspect,1)}getFilmHeight(){return this.filmGauge/Math.max(this.aspect,1)}getViewBounds(t,i,n){rs.set(-1,-1,.5).applyMatrix4(this.projectionMatrixInverse),i.set(rs.x,rs.y).multiplyScalar(-t/rs.z),rs.set(1,1,.5).applyMatrix4(this.projectionMatrixInverse),n.set(rs.x,rs.y).multiplyScalar(-t/rs.z)}getViewSize(t,i){return this.getViewBounds(t,Ng,Dg),i.subVectors(Dg,Ng)}setViewOffset(t,i,n,s,r,o){this.aspect=t/i,this.view===null&&(this.view={enabled:!0,fullWidth:1,fullHeight:1,offsetX:0,offsetY:0,width:1,height:1}),this.view.enabled=!0,this.view.fullWidth=t,this.view.fullHeight=i,this.view.offsetX=n,this.view.offsetY=s,this.view.width=r,this.view.height=o,this.updateProjectionMatrix()}clearViewOffset(){this.view!==null&&(this.view.enabled=!1),this.updateProjectionMatrix()}updateProjectionMatrix(){let t=this.near,i=t*Math.tan(Er*.5*this.fov)/this.zoom,n=2*i,s=this.aspect*n,r=-.5*s,o=this.view;if(this.view!==null&&this.view.enabled){let l=o.fullWidth,c=o.fullHeight;r+=o.offsetX*s/l,i-=o.offsetY*n/c,s*=o.width/l,n*=o.height/c}let a=this.filmOffset;a!==0&&(r+=t*a/this.getFilmWidth()),this.projectionMatrix.makePerspective(r,r+s,i,i-n,t,this.far,this.coordinateSystem,this.reversedDepth),this.projectionMatrixInverse.copy(this.projectionMatrix).invert()}toJSON(t){let i=super.toJSON(t);return i.object.fov=this.fov,i.object.zoom=this.zoom,i.object.near=this.near,i.object.far=this.far,i.object.focus=this.focus,i.object.aspect=this.aspect,this.view!==null&&(i.object.view=Object.assign({},this.view)),i.object.filmGauge=this.filmGauge,i.object.filmOffset=this.filmOffset,i}};var qs=class extends na{constructor(t=-1,i=1,n=1,s=-1,r=.1,o=2e3){super(),this.isOrthographicCamera=!0,this.type="OrthographicCamera",this.zoom=1,this.view=null,this.left=t,this.right=i,this.top=n,this.bottom=s,this.near=r,this.far=o,this.updateProjectionMatrix()}copy(t,i){return super.copy(t,i),this.left=t.left,this.right=t.right,this.top=t.top,this.bottom=t.bottom,this.near=t.near,this.far=t.far,this.zoom=t.zoom,this.view=t.view===null?null:Object.assign({},t.view),this}setViewOffset(t,i,n,s,r,o){this.view===null&&(this.view={enabled:!0,fullWidth:1,fullHeight:1,offsetX:0,offsetY:0,width:1,height:1}),this.view.enabled=!0,this.view.fullWidth=t,this.view.fullHeight=i,this.view.offsetX=n,this.view.offsetY=s,this.view.width=r,this.view.height=o,this.updateProjectionMatrix()}clearViewOffset(){this.view!==null&&(this.view.enabled=!1),this.updateProjectionMatrix()}updateProjectionMatrix(){let t=(this.right-this.left)/(2*this.zoom),i=(this.top-this.bottom)/(2*this.zoom),n=(this.right+this.left)/2,s=(this.top+this.bottom)/2,r=n-t,o=n+t,a=s+i,l=s-i;if(this.view!==null&&this.view.enabled){let c=(this.right-this.left)/this.view.fullWidth/this.zoom,h=(this.top-this.bottom)/this.view.fullHeight/this.zoom;r+=c*this.view.offsetX,o=r+c*this.view.width,a-=h*this.view.offsetY,l=a-h*this.view.height}this.projectionMatrix.makeOrthographic(r,o,a,l,this.near,this.far,this.coordinateSystem,this.reversedDepth),this.projectionMatrixInverse.copy(this.projectionMatrix).invert()}toJSON(t){let i=super.toJSON(t);return i.object.zoom=this.zoom,i.object.left=this.left,i.object.right=this.right,i.object.top=this.top,i.object.bottom=this.bottom,i.object.near=this.near,i.object.far=this.far,this.view!==null&&(i.object.view=Object.assign({},this.view)),i}};var wr=-90,Mr=1,Ur=class extends Ai{constructor(t,i,n){super(),this.type="CubeCamera",this.renderTarget=n,this.coordinateSystem=null,this.activeMipmapLevel=0;let s=new yi(wr,Mr,t,i);s.layers=this.layers,this.add(s);let r=new yi(wr,Mr,t,i);r.layers=this.layers,this.add(r);let o=new yi(wr,Mr,t,i);o.layers=this.layers,this.add(o);let a=new yi(wr,Mr,t,i);a.layers=this.layers,this.add(a);let l=new yi(wr,Mr,t,i);l.layers=this.layers,this.add(l);let c=new yi(wr,Mr,t,i);c.layers=this.layers,this.add(c)}updateCoordinateSystem(){let t=this.coordinateSystem,i=this.children.concat(),[n,s,r,o,a,l]=i;for(let c of i)this.remove(c);if(t===qi)n.up.set(0,1,0),n.lookAt(1,0,0),s.up.set(0,1,0),s.lookAt(-1,0,0),r.up.set(0,0,-1),r.lookAt(0,1,0),o.up.set(0,0,1),o.lookAt(0,-1,0),a.up.set(0,1,0),a.lookAt(0,0,1),l.up.set(0,1,0),l.lookAt(0,0,-1);else if(t===Xo)n.up.set(0,-1,0),n.lookAt(-1,0,0),s.up.set(0,-1,0),s.lookAt(1,0,0),r.up.set(0,0,1),r.lookAt(0,1,0),o.up.set(0,0,-1),o.lookAt(0,-1,0),a.up.set(0,-1,0),a.lookAt(0,0,1),l.up.set(0,-1,0),l.lookAt(0,0,-1);else throw new Error("THREE.CubeCamera.updateCoordinateSystem(): Invalid coordinate system: "+t);for(let c of i)this.add(c),c.updateMatrixWorld()}update(t,i){this.parent===null&&this.updateMatrixWorld();let{renderTarget:n,activeMipmapLevel:s}=this;this.coordinateSystem!==t.coordinateSystem&&(this.coordinateSystem=t.coordinateSystem,this.updateCoordinateSystem());let[r,o,a,l,c,h]=this.children,u=t.getRenderTarget(),f=t.getActiveCubeFace(),d=t.getActiveMipmapLevel(),g=t.xr.enabled;t.xr.enabled=!1;let x=n.texture.mipmapsAutoUpdate;n.texture.mipmapsAutoUpdate=!1;let p=!1;t.isWebGLRenderer===!0?p=t.state.buffers.depth.getReversed():p=t.reversedDepthBuffer,t.setRenderTarget(n,0,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,r),t.setRenderTarget(n,1,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,o),t.setRenderTarget(n,2,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,a),t.setRenderTarget(n,3,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,l),t.setRenderTarget(n,4,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,c),n.texture.mipmapsAutoUpdate=x,t.setRenderTarget(n,5,s),p&&t.autoClear===!1&&t.clearDepth(),t.render(i,h),t.setRenderTarget(u,f,d),t.xr.enabled=g,n.texture.needsPMREMUpdate=!0}},cc=class extends yi{constructor(t=[]){super(),this.isArrayCamera=!0,this.isMultiViewCamera=!1,this.cameras=t,this.perCameraFrustumCulled=!1}};var fd="\\[\\]\\.:\\/",HS=new RegExp("["+fd+"]","g"),dd="[^"+fd+"]",VS="[^"+fd.replace("\\.","")+"]",GS=/((?:WC+[\/:])*)/.source.replace("WC",dd),WS=/(WCOD+)?/.source.replace("WCOD",VS),XS=/(?:\.(WC+)(?:\[(.+)\])?)?/.source.replace("WC",dd),$S=/\.(WC+)(?:\[(.+)\])?/.source.replace("WC",dd),qS=new RegExp("^"+GS+WS+XS+$S+"$"),YS=["material","materials","bones","map"],Cf=class{constructor(t,i,n){let s=n||Me.parseTrackName(i);this._targetGroup=t,this._bindings=t.subscribe_(i,s)}getValue(t,i){this.bind();let n=this._targetGroup.nCachedObjects_,s=this._bindings[n];s!==void 0&&s.getValue(t,i)}setValue(t,i){let n=this._bindings;for(let s=this._targetGroup.nCachedObjects_,r=n.length;s!==r;++s)n[s].setValue(t,i)}bind(){let t=this._bindings;for(let i=this._targetGroup.nCachedObjects_,n=t.length;i!==n;++i)t[i].bind()}unbind(){let t=this._bindings;for(let i=this._targetGroup.nCachedObjects_,n=t.length;i!==n;++i)t[i].unbind()}},Me=class e{constructor(t,i,n){this.path=i,this.parsedPath=n||e.parseTrackName(i),this.node=e.findNode(t,this.parsedPath.nodeName),this.rootNode=t,this.getValue=this._getValue_unbound,this.setValue=this._setValue_unbound}static create(t,i,n){return t&&t.isAnimationObjectGroup?new e.Composite(t,i,n):new e(t,i,n)}static sanitizeNodeName(t){return t.replace(/\s/g,"_").replace(HS,"")}static parseTrackName(t){let i=qS.exec(t);if(i===null)throw new Error("THREE.PropertyBinding: Cannot parse trackName: "+t);let n={nodeName:i[2],objectName:i[3],objectIndex:i[4],propertyName:i[5],propertyIndex:i[6]},s=n.nodeName&&n.nodeName.lastIndexOf(".");if(s!==void 0&&s!==-1){let r=n.nodeName.substring(s+1);YS.indexOf(r)!==-1&&(n.nodeName=n.nodeName.substring(0,s),n.objectName=r)}if(n.propertyName===null||n.propertyName.length===0)throw new Error("THREE.PropertyBinding: can not parse propertyName from trackName: "+t);return n}static findNode(t,i){if(i===void 0||i===""||i==="."||i===-1||i===t.name||i===t.uuid)return t;if(t.skeleton){let n=t.skeleton.getBoneByName(i);if(n!==void 0)return n}if(t.children){let n=function(r){for(let o=0;o<r.length;o++){let a=r[o];if(a.name===i||a.uuid===i)return a;let l=n(a.children);if(l)return l}return null},s=n(t.children);if(s)return s}return null}_getValue_unavailable(){}_setValue_unavailable(){}_getValue_direct(t,i){t[i]=this.targetObject[this.propertyName]}_getValue_array(t,i){let n=this.resolvedProperty;for(let s=0,r=n.length;s!==r;++s)t[i++]=n[s]}_getValue_arrayElement(t,i){t[i]=this.resolvedProperty[this.propertyIndex]}_getValue_toArray(t,i){this.resolvedProperty.toArray(t,i)}_setValue_direct(t,i){this.targetObject[this.propertyName]=t[i]}_setValue_direct_setNeedsUpdate(t,i){this.targetObject[this.propertyName]=t[i],this.targetObject.needsUpdate=!0}_setValue_direct_setMatrixWorldNeedsUpdate(t,i){this.targetObject[this.propertyName]=t[i],this.targetObject.matrixWorldNeedsUpdate=!0}_setValue_array(t,i){let n=this.resolvedProperty;for(let s=0,r=n.length;s!==r;++s)n[s]=t[i++]}_setValue_array_setNeedsUpdate(t,i){let n=this.resolvedProperty;for(let s=0,r=n.length;s!==r;++s)n[s]=t[i++];this.targetObject.needsUpdate=!0}_setValue_array_setMatrixWorldNeedsUpdate(t,i){let n=this.resolvedProperty;for(let s=0,r=n.length;s!==r;++s)n[s]=t[i++];this.targetObject.matrixWorldNeedsUpdate=!0}_setValue_arrayElement(t,i){this.resolvedProperty[this.propertyIndex]=t[i]}_setValue_arrayElement_setNeedsUpdate(t,i){this.resolvedProperty[this.propertyIndex]=t[i],this.targetObject.needsUpdate=!0}_setValue_arrayElement_setMatrixWorldNeedsUpdate(t,i){this.resolvedProperty[this.propertyIndex]=t[i],this.targetObject.matrixWorldNeedsUpdate=!0}_setValue_fromArray(t,i){this.resolvedProperty.fromArray(t,i)}_setValue_fromArray_setNeedsUpdate(t,i){this.resolvedProperty.fromArray(t,i),this.targetObject.needsUpdate=!0}_setValue_fromArray_setMatrixWorldNeedsUpdate(t,i){this.resolvedProperty.fromArray(t,i),this.targetObject.matrixWorldNeedsUpdate=!0}_getValue_unbound(t,i){this.bind(),this.getValue(t,i)}_setValue_unbound(t,i){this.bind(),this.setValue(t,i)}bind(){let t=this.node,i=this.parsedPath,n=i.objectName,s=i.propertyName,r=i.propertyIndex;if(t||(t=e.findNode(this.rootNode,i.nodeName),this.node=t),this.getValue=this._getValue_unavailable,this.setValue=this._setValue_unavailable,!t){Ct("PropertyBinding: No target node found for track: "+this.path+".");return}if(n){let c=i.objectIndex;switch(n){case"materials":if(!t.material){Lt("PropertyBinding: Can not bind to material as node does not have a material.",this);return}if(!t.material.materials){Lt("PropertyBinding: Can not bind to material.materials as node.material does not have a materials array.",this);return}t=t.material.materials;break;case"bones":if(!t.skeleton){Lt("PropertyBinding: Can not bind to bones as node does not have a skeleton.",this);return}t=t.skeleton.bones;for(let h=0;h<t.length;h++)if(t[h].name===c){c=h;break}break;case"map":if("map"in t){t=t.map;break}if(!t.material){Lt("PropertyBinding: Can not bind to material as node does not have a material.",this);return}if(!t.material.map){Lt("PropertyBinding: Can not bind to material.map as node.material does not have a map.",this);return}t=t.material.map;break;default:if(t[n]===void 0){Lt("PropertyBinding: Can not bind to objectName of node undefined.",this);return}t=t[n]}if(c!==void 0){if(t[c]===void 0){Lt("PropertyBinding: Trying to bind to objectIndex of objectName, but is undefined.",this,t);return}t=t[c]}}let o=t[s];if(o===void 0){let c=i.nodeName;Lt("PropertyBinding: Trying to update property for track: "+c+"."+s+" but it wasn't found.",t);return}let a=this.Versioning.None;this.targetObject=t,t.isMaterial===!0?a=this.Versioning.NeedsUpdate:t.isObject3D===!0&&(a=this.Versioning.MatrixWorldNeedsUpdate);let l=this.BindingType.Direct;if(r!==void 0){if(s==="morphTargetInfluences"){if(!t.geometry){Lt("PropertyBinding: Can not bind to morphTargetInfluences because node does not have a geometry.",this);return}if(!t.geometry.morphAttributes){Lt("PropertyBinding: Can not bind to morphTargetInfluences because node does not have a geometry.morphAttributes.",this);return}t.morphTargetDictionary[r]!==void 0&&(r=t.morphTargetDictionary[r])}l=this.BindingType.ArrayElement,this.resolvedProperty=o,this.propertyIndex=r}else o.fromArray!==void 0&&o.toArray!==void 0?(l=this.BindingType.HasFromToArray,this.resolvedProperty=o):Array.isArray(o)?(l=this.BindingType.EntireArray,this.resolvedProperty=o):this.propertyName=s;this.getValue=this.GetterByBindingType[l],this.setValue=this.SetterByBindingTypeAndVersioning[l][a]}unbind(){this.node=null,this.getValue=this._getValue_unbound,this.setValue=this._setValue_unbound}};Me.Composite=Cf;Me.prototype.BindingType={Direct:0,EntireArray:1,ArrayElement:2,HasFromToArray:3};Me.prototype.Versioning={None:0,NeedsUpdate:1,MatrixWorldNeedsUpdate:2};Me.prototype.GetterByBindingType=[Me.prototype._getValue_direct,Me.prototype._getValue_array,Me.prototype._getValue_arrayElement,Me.prototype._getValue_toArray];Me.prototype.SetterByBindingTypeAndVersioning=[[Me.prototype._setValue_direct,Me.prototype._setValue_direct_setNeedsUpdate,Me.prototype._setValue_direct_setMatrixWorldNeedsUpdate],[Me.prototype._setValue_array,Me.prototype._setValue_array_setNeedsUpdate,Me.prototype._setValue_array_setMatrixWorldNeedsUpdate],[Me.prototype._setValue_arrayElement,Me.prototype._setValue_arrayElement_setNeedsUpdate,Me.prototype._setValue_arrayElement_setMatrixWorldNeedsUpdate],[Me.prototype._setValue_fromArray,Me.prototype._setValue_fromArray_setNeedsUpdate,Me.prototype._setValue_fromArray_setMatrixWorldNeedsUpdate]];var I1=new Float32Array(1);var Og=new Vt,sa=class{constructor(t,i,n=0,s=1/0){this.ray=new on(t,i),this.near=n,this.far=s,this.camera=null,this.layers=new Lr,this.params={Mesh:{},Line:{threshold:1},LOD:{},Points:{threshold:1},Sprite:{}}}set(t,i){this.ray.set(t,i)}setFromCamera(t,i){i.isPerspectiveCamera?(this.ray.origin.setFromMatrixPosition(i.matrixWorld),this.ray.direction.set(t.x,t.y,.5).unproject(i).sub(this.ray.origin).normalize(),this.camera=i):i.isOrthographicCamera?(this.ray.origin.set(t.x,t.y,i.projectionMatrix.elements[14]).unproject(i),this.ray.direction.set(0,0,-1).transformDirection(i.matrixWorld),this.camera=i):Lt("Raycaster: Unsupported camera type: "+i.type)}setFromXRController(t){return Og.identity().extractRotation(t.matrixWorld),this.ray.origin.setFromMatrixPosition(t.matrixWorld),this.ray.direction.set(0,0,-1).applyMatrix4(Og),this}intersectObject(t,i=!0,n=[]){return Pf(t,this,n,i),n.sort(Ug),n}intersectObjects(t,i=!0,n=[]){for(let s=0,r=t.length;s<r;s++)Pf(t[s],this,n,i);return n.sort(Ug),n}};function Ug(e,t){return e.distance-t.distance}function Pf(e,t,i,n){let s=!0;if(e.layers.test(t.layers)&&e.raycast(t,i)===!1&&(s=!1),s===!0&&n===!0){let r=e.children;for(let o=0,a=r.length;o<a;o++)Pf(r[o],t,i,!0)}}var Fr=class{constructor(t=1,i=0,n=0){this.radius=t,this.phi=i,this.theta=n}set(t,i,n){return this.radius=t,this.phi=i,this.theta=n,this}copy(t){return this.radius=t.radius,this.phi=t.phi,this.theta=t.theta,this}makeSafe(){return this.phi=Bt(this.phi,1e-6,Math.PI-1e-6),this}setFromVector3(t){return this.setFromCartesianCoords(t.x,t.y,t.z)}setFromCartesianCoords(t,i,n){return this.radius=Math.sqrt(t*t+i*i+n*n),this.radius===0?(this.theta=0,this.phi=0):(this.theta=Math.atan2(t,n),this.phi=Math.acos(Bt(i/this.radius,-1,1))),this}clone(){return new this.constructor().copy(this)}};var If=class{static{this.prototype.isMatrix2=!0}constructor(t,i,n,s){this.elements=[1,0,0,1],t!==void 0&&this.set(t,i,n,s)}identity(){return this.set(1,0,0,1),this}fromArray(t,i=0){for(let n=0;n<4;n++)this.elements[n]=t[n+i];return this}set(t,i,n,s){let r=this.elements;return r[0]=t,r[2]=i,r[1]=n,r[3]=s,this}};var Fg=new C,Pl=new C,br=new C,Tr=new C,Mf=new C,KS=new C,ZS=new C,Si=class{constructor(t=new C,i=new C){this.start=t,this.end=i}set(t,i){return this.start.copy(t),this.end.copy(i),this}copy(t){return this.start.copy(t.start),this.end.copy(t.end),this}getCenter(t){return t.addVectors(this.start,this.end).multiplyScalar(.5)}delta(t){return t.subVectors(this.end,this.start)}distanceSq(){return this.start.distanceToSquared(this.end)}distance(){return this.start.distanceTo(this.end)}at(t,i){return this.delta(i).multiplyScalar(t).add(this.start)}closestPointToPointParameter(t,i){Fg.subVectors(t,this.start),Pl.subVectors(this.end,this.start);let n=Pl.dot(Pl);if(n===0)return 0;let r=Pl.dot(Fg)/n;return i&&(r=Bt(r,0,1)),r}closestPointToPoint(t,i,n){let s=this.closestPointToPointParameter(t,i);return this.delta(n).multiplyScalar(s).add(this.start)}distanceSqToLine3(t,i=KS,n=ZS){let s=10000000000000001e-32,r,o,a=this.start,l=t.start,c=this.end,h=t.end;br.subVectors(c,a),Tr.subVectors(h,l),Mf.subVectors(a,l);let u=br.dot(br),f=Tr.dot(Tr),d=Tr.dot(Mf);if(u<=s&&f<=s)return i.copy(a),n.copy(l),i.distanceToSquared(n);if(u<=s)r=0,o=d/f,o=Bt(o,0,1);else{let g=br.dot(Mf);if(f<=s)o=0,r=Bt(-g/u,0,1);else{let x=br.dot(Tr),p=u*f-x*x;p!==0?r=Bt((x*d-g*f)/p,0,1):r=0,o=(x*r+d)/f,o<0?(o=0,r=Bt(-g/u,0,1)):o>1&&(o=1,r=Bt((x-g)/u,0,1))}}return i.copy(a).addScaledVector(br,r),n.copy(l).addScaledVector(Tr,o),i.distanceToSquared(n)}applyMatrix4(t){return this.start.applyMatrix4(t),this.end.applyMatrix4(t),this}equals(t){return t.start.equals(this.start)&&t.end.equals(this.end)}clone(){return new this.constructor().copy(this)}};var ra=class extends rn{constructor(t,i=null){super(),this.object=t,this.domElement=i,this.enabled=!0,this.state=-1,this.keys={},this.mouseButtons={LEFT:null,MIDDLE:null,RIGHT:null},this.touches={ONE:null,TWO:null}}connect(t){this.domElement!==null&&this.disconnect(),this.domElement=t}disconnect(){}dispose(){}update(){}};function pd(e,t,i,n){let s=JS(n);switch(i){case Jf:return e*t;case Qf:return e*t/s.components*s.byteLength;case gc:return e*t/s.components*s.byteLength;case fs:return e*t*2/s.components*s.byteLength;case _c:return e*t*2/s.components*s.byteLength;case jf:return e*t*3/s.components*s.byteLength;case hn:return e*t*4/s.components*s.byteLength;case yc:return e*t*4/s.components*s.byteLength;case la:case ca:return Math.floor((e+3)/4)*Math.floor((t+3)/4)*8;case ha:case ua:return Math.floor((e+3)/4)*Math.floor((t+3)/4)*16;case vc:case wc:return Math.max(e,16)*Math.max(t,8)/4;case xc:case Sc:return Math.max(e,8)*Math.max(t,8)/2;case Mc:case bc:case Ec:case Ac:return Math.floor((e+3)/4)*Math.floor((t+3)/4)*8;case Tc:case fa:case Rc:return Math.floor((e+3)/4)*Math.floor((t+3)/4)*16;case Cc:return Math.floor((e+3)/4)*Math.floor((t+3)/4)*16;case Pc:return Math.floor((e+4)/5)*Math.floor((t+3)/4)*16;case Ic:return Math.floor((e+4)/5)*Math.floor((t+4)/5)*16;case Lc:return Math.floor((e+5)/6)*Math.floor((t+4)/5)*16;case Nc:return Math.floor((e+5)/6)*Math.floor((t+5)/6)*16;case Dc:return Math.floor((e+7)/8)*Math.floor((t+4)/5)*16;case Oc:return Math.floor((e+7)/8)*Math.floor((t+5)/6)*16;case Uc:return Math.floor((e+7)/8)*Math.floor((t+7)/8)*16;case Fc:return Math.floor((e+9)/10)*Math.floor((t+4)/5)*16;case Bc:return Math.floor((e+9)/10)*Math.floor((t+5)/6)*16;case kc:return Math.floor((e+9)/10)*Math.floor((t+7)/8)*16;case zc:return Math.floor((e+9)/10)*Math.floor((t+9)/10)*16;case Hc:return Math.floor((e+11)/12)*Math.floor((t+9)/10)*16;case Vc:return Math.floor((e+11)/12)*Math.floor((t+11)/12)*16;case Gc:case Wc:case Xc:return Math.ceil(e/4)*Math.ceil(t/4)*16;case $c:case qc:return Math.ceil(e/4)*Math.ceil(t/4)*8;case da:case Yc:return Math.ceil(e/4)*Math.ceil(t/4)*16}throw new Error(`Unable to determine texture byte length for ${i} format.`)}function JS(e){switch(e){case Bi:case qf:return{byteLength:1,components:1};case Hr:case Yf:case cn:return{byteLength:2,components:1};case pc:case mc:return{byteLength:2,components:4};case an:case dc:case ln:return{byteLength:4,components:1};case Kf:case Zf:return{byteLength:4,components:3}}throw new Error(`THREE.TextureUtils: Unknown texture type ${e}.`)}typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("register",{detail:{revision:"187"}}));typeof window<"u"&&(window.__THREE__?Ct("WARNING: Multiple instances of Three.js being imported."):window.__THREE__="187");function Y_(){let e=null,t=!1,i=null,n=null;function s(r,o){n=e.requestAnimationFrame(s),i(r,o)}return{start:function(){t!==!0&&i!==null&&e!==null&&(n=e.requestAnimationFrame(s),t=!0)},stop:function(){e!==null&&e.cancelAnimationFrame(n),t=!1},setAnimationLoop:function(r){i=r},setContext:function(r){e=r}}}function jS(e){let t=new WeakMap;function i(a,l){let c=a.array,h=a.usage,u=c.byteLength,f=e.createBuffer();e.bindBuffer(l,f),e.bufferData(l,c,h),a.onUploadCallback();let d;if(c instanceof Float32Array)d=e.FLOAT;else if(typeof Float16Array<"u"&&c instanceof Float16Array)d=e.HALF_FLOAT;else if(c instanceof Uint16Array)a.isFloat16BufferAttribute?d=e.HALF_FLOAT:d=e.UNSIGNED_SHORT;else if(c instanceof Int16Array)d=e.SHORT;else if(c instanceof Uint32Array)d=e.UNSIGNED_INT;else if(c instanceof Int32Array)d=e.INT;else if(c instanceof Int8Array)d=e.BYTE;else if(c instanceof Uint8Array)d=e.UNSIGNED_BYTE;else if(c instanceof Uint8ClampedArray)d=e.UNSIGNED_BYTE;else throw new Error("THREE.WebGLAttributes: Unsupported buffer data format: "+c);return{buffer:f,type:d,bytesPerElement:c.BYTES_PER_ELEMENT,version:a.version,size:u}}function n(a,l,c){let h=l.array,u=l.updateRanges;if(e.bindBuffer(c,a),u.length===0)e.bufferSubData(c,0,h);else{u.sort((d,g)=>d.start-g.start);let f=0;for(let d=1;d<u.length;d++){let g=u[f],x=u[d];x.start<=g.start+g.count+1?g.count=Math.max(g.count,x.start+x.count-g.start):(++f,u[f]=x)}u.length=f+1;for(let d=0,g=u.length;d<g;d++){let x=u[d];e.bufferSubData(c,x.start*h.BYTES_PER_ELEMENT,h,x.start,x.count)}l.clearUpdateRanges()}l.onUploadCallback()}function s(a){return a.isInterleavedBufferAttribute&&(a=a.data),t.get(a)}function r(a){a.isInterleavedBufferAttribute&&(a=a.data);let l=t.get(a);l&&(e.deleteBuffer(l.buffer),t.delete(a))}function o(a,l){if(a.isInterleavedBufferAttribute&&(a=a.data),a.isGLBufferAttribute){let h=t.get(a);(!h||h.version<a.version)&&t.set(a,{buffer:a.buffer,type:a.type,bytesPerElement:a.elementSize,version:a.version});return}let c=t.get(a);if(c===void 0)t.set(a,i(a,l));else if(c.version<a.version){if(c.size!==a.array.byteLength)throw new Error("THREE.WebGLAttributes: The size of the buffer attribute's array buffer does not match the original size. Resizing buffer attributes is not supported.");n(c.buffer,a,l),c.version=a.version}}return{get:s,remove:r,update:o}}var QS=`#ifdef USE_ALPHAHASH
	if ( diffuseColor.a < getAlphaHashThreshold( vPosition ) ) discard;
#endif`,tw=`#ifdef USE_ALPHAHASH
	const float ALPHA_HASH_SCALE = 0.05;
	float hash2D( vec2 value ) {
		return fract( 1.0e4 * sin( 17.0 * value.x + 0.1 * value.y ) * ( 0.1 + abs( sin( 13.0 * value.y + value.x ) ) ) );
	}
	float hash3D( vec3 value ) {
		return hash2D( vec2( hash2D( value.xy ), value.z ) );
	}
	float getAlphaHashThreshold( vec3 position ) {
		float maxDeriv = max(
			length( dFdx( position.xyz ) ),
			length( dFdy( position.xyz ) )
		);
		float pixScale = 1.0 / ( ALPHA_HASH_SCALE * maxDeriv );
		vec2 pixScales = vec2(
			exp2( floor( log2( pixScale ) ) ),
			exp2( ceil( log2( pixScale ) ) )
		);
		vec2 alpha = vec2(
			hash3D( floor( pixScales.x * position.xyz ) ),
			hash3D( floor( pixScales.y * position.xyz ) )
		);
		float lerpFactor = fract( log2( pixScale ) );
		float x = ( 1.0 - lerpFactor ) * alpha.x + lerpFactor * alpha.y;
		float a = min( lerpFactor, 1.0 - lerpFactor );
		vec3 cases = vec3(
			x * x / ( 2.0 * a * ( 1.0 - a ) ),
			( x - 0.5 * a ) / ( 1.0 - a ),
			1.0 - ( ( 1.0 - x ) * ( 1.0 - x ) / ( 2.0 * a * ( 1.0 - a ) ) )
		);
		float threshold = ( x < ( 1.0 - a ) )
			? ( ( x < a ) ? cases.x : cases.y )
			: cases.z;
		return clamp( threshold , 1.0e-6, 1.0 );
	}
#endif`,ew=`#ifdef USE_ALPHAMAP
	diffuseColor.a *= texture2D( alphaMap, vAlphaMapUv ).g;
#endif`,iw=`#ifdef USE_ALPHAMAP
	uniform sampler2D alphaMap;
#endif`,nw=`#ifdef USE_ALPHATEST
	#ifdef ALPHA_TO_COVERAGE
	diffuseColor.a = smoothstep( alphaTest, alphaTest + fwidth( diffuseColor.a ), diffuseColor.a );
	if ( diffuseColor.a == 0.0 ) discard;
	#else
	if ( diffuseColor.a < alphaTest ) discard;
	#endif
#endif`,sw=`#ifdef USE_ALPHATEST
	uniform float alphaTest;
#endif`,rw=`#ifdef USE_AOMAP
	float ambientOcclusion = ( texture2D( aoMap, vAoMapUv ).r - 1.0 ) * aoMapIntensity + 1.0;
	reflectedLight.indirectDiffuse *= ambientOcclusion;
	#if defined( USE_CLEARCOAT ) 
		clearcoatSpecularIndirect *= ambientOcclusion;
	#endif
	#if defined( USE_SHEEN ) 
		sheenSpecularIndirect *= ambientOcclusion;
	#endif
	#if defined( USE_ENVMAP ) && defined( STANDARD )
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		reflectedLight.indirectSpecular *= computeSpecularOcclusion( dotNV, ambientOcclusion, material.roughness );
	#endif
#endif`,ow=`#ifdef USE_AOMAP
	uniform sampler2D aoMap;
	uniform float aoMapIntensity;
#endif`,aw=`#ifdef USE_BATCHING
	#if ! defined( GL_ANGLE_multi_draw )
	#define gl_DrawID _gl_DrawID
	uniform int _gl_DrawID;
	#endif
	uniform highp sampler2D batchingTexture;
	uniform highp usampler2D batchingIdTexture;
	mat4 getBatchingMatrix( const in float i ) {
		int size = textureSize( batchingTexture, 0 ).x;
		int j = int( i ) * 4;
		int x = j % size;
		int y = j / size;
		vec4 v1 = texelFetch( batchingTexture, ivec2( x, y ), 0 );
		vec4 v2 = texelFetch( batchingTexture, ivec2( x + 1, y ), 0 );
		vec4 v3 = texelFetch( batchingTexture, ivec2( x + 2, y ), 0 );
		vec4 v4 = texelFetch( batchingTexture, ivec2( x + 3, y ), 0 );
		return mat4( v1, v2, v3, v4 );
	}
	float getIndirectIndex( const in int i ) {
		int size = textureSize( batchingIdTexture, 0 ).x;
		int x = i % size;
		int y = i / size;
		return float( texelFetch( batchingIdTexture, ivec2( x, y ), 0 ).r );
	}
#endif
#ifdef USE_BATCHING_COLOR
	uniform sampler2D batchingColorTexture;
	vec4 getBatchingColor( const in float i ) {
		int size = textureSize( batchingColorTexture, 0 ).x;
		int j = int( i );
		int x = j % size;
		int y = j / size;
		return texelFetch( batchingColorTexture, ivec2( x, y ), 0 );
	}
#endif`,lw=`#ifdef USE_BATCHING
	mat4 batchingMatrix = getBatchingMatrix( getIndirectIndex( gl_DrawID ) );
#endif`,cw=`vec3 transformed = vec3( position );
#ifdef USE_ALPHAHASH
	vPosition = vec3( position );
#endif`,hw=`vec3 objectNormal = vec3( normal );
#ifdef USE_TANGENT
	vec3 objectTangent = vec3( tangent.xyz );
#endif`,uw=`float G_BlinnPhong_Implicit( ) {
	return 0.25;
}
float D_BlinnPhong( const in float shininess, const in float dotNH ) {
	return RECIPROCAL_PI * ( shininess * 0.5 + 1.0 ) * pow( dotNH, shininess );
}
vec3 BRDF_BlinnPhong( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in vec3 specularColor, const in float shininess ) {
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNH = saturate( dot( normal, halfDir ) );
	float dotVH = saturate( dot( viewDir, halfDir ) );
	vec3 F = F_Schlick( specularColor, 1.0, dotVH );
	float G = G_BlinnPhong_Implicit( );
	float D = D_BlinnPhong( shininess, dotNH );
	return F * ( G * D );
} // validated`,fw=`#ifdef USE_IRIDESCENCE
	const mat3 XYZ_TO_REC709 = mat3(
		 3.2404542, -0.9692660,  0.0556434,
		-1.5371385,  1.8760108, -0.2040259,
		-0.4985314,  0.0415560,  1.0572252
	);
	vec3 Fresnel0ToIor( vec3 fresnel0 ) {
		vec3 sqrtF0 = sqrt( fresnel0 );
		return ( vec3( 1.0 ) + sqrtF0 ) / ( vec3( 1.0 ) - sqrtF0 );
	}
	vec3 IorToFresnel0( vec3 transmittedIor, float incidentIor ) {
		return pow2( ( transmittedIor - vec3( incidentIor ) ) / ( transmittedIor + vec3( incidentIor ) ) );
	}
	float IorToFresnel0( float transmittedIor, float incidentIor ) {
		return pow2( ( transmittedIor - incidentIor ) / ( transmittedIor + incidentIor ));
	}
	vec3 evalSensitivity( float OPD, vec3 shift ) {
		float phase = 2.0 * PI * OPD * 1.0e-9;
		vec3 val = vec3( 5.4856e-13, 4.4201e-13, 5.2481e-13 );
		vec3 pos = vec3( 1.6810e+06, 1.7953e+06, 2.2084e+06 );
		vec3 var = vec3( 4.3278e+09, 9.3046e+09, 6.6121e+09 );
		vec3 xyz = val * sqrt( 2.0 * PI * var ) * cos( pos * phase + shift ) * exp( - pow2( phase ) * var );
		xyz.x += 9.7470e-14 * sqrt( 2.0 * PI * 4.5282e+09 ) * cos( 2.2399e+06 * phase + shift[ 0 ] ) * exp( - 4.5282e+09 * pow2( phase ) );
		xyz /= 1.0685e-7;
		vec3 rgb = XYZ_TO_REC709 * xyz;
		return rgb;
	}
	vec3 evalIridescence( float outsideIOR, float eta2, float cosTheta1, float thinFilmThickness, vec3 baseF0 ) {
		vec3 I;
		float iridescenceIOR = mix( outsideIOR, eta2, smoothstep( 0.0, 0.03, thinFilmThickness ) );
		float sinTheta2Sq = pow2( outsideIOR / iridescenceIOR ) * ( 1.0 - pow2( cosTheta1 ) );
		float cosTheta2Sq = 1.0 - sinTheta2Sq;
		if ( cosTheta2Sq < 0.0 ) {
			return vec3( 1.0 );
		}
		float cosTheta2 = sqrt( cosTheta2Sq );
		float R0 = IorToFresnel0( iridescenceIOR, outsideIOR );
		float R12 = F_Schlick( R0, 1.0, cosTheta1 );
		float T121 = 1.0 - R12;
		float phi12 = 0.0;
		if ( iridescenceIOR < outsideIOR ) phi12 = PI;
		float phi21 = PI - phi12;
		vec3 baseIOR = Fresnel0ToIor( clamp( baseF0, 0.0, 0.9999 ) );		vec3 R1 = IorToFresnel0( baseIOR, iridescenceIOR );
		vec3 R23 = F_Schlick( R1, 1.0, cosTheta2 );
		vec3 phi23 = vec3( 0.0 );
		if ( baseIOR[ 0 ] < iridescenceIOR ) phi23[ 0 ] = PI;
		if ( baseIOR[ 1 ] < iridescenceIOR ) phi23[ 1 ] = PI;
		if ( baseIOR[ 2 ] < iridescenceIOR ) phi23[ 2 ] = PI;
		float OPD = 2.0 * iridescenceIOR * thinFilmThickness * cosTheta2;
		vec3 phi = vec3( phi21 ) + phi23;
		vec3 R123 = clamp( R12 * R23, 1e-5, 0.9999 );
		vec3 r123 = sqrt( R123 );
		vec3 Rs = pow2( T121 ) * R23 / ( vec3( 1.0 ) - R123 );
		vec3 C0 = R12 + Rs;
		I = C0;
		vec3 Cm = Rs - T121;
		for ( int m = 1; m <= 2; ++ m ) {
			Cm *= r123;
			vec3 Sm = 2.0 * evalSensitivity( float( m ) * OPD, float( m ) * phi );
			I += Cm * Sm;
		}
		return max( I, vec3( 0.0 ) );
	}
#endif`,dw=`#ifdef USE_BUMPMAP
	uniform sampler2D bumpMap;
	uniform float bumpScale;
	vec2 dHdxy_fwd() {
		vec2 dSTdx = dFdx( vBumpMapUv );
		vec2 dSTdy = dFdy( vBumpMapUv );
		float Hll = bumpScale * texture2D( bumpMap, vBumpMapUv ).x;
		float dBx = bumpScale * texture2D( bumpMap, vBumpMapUv + dSTdx ).x - Hll;
		float dBy = bumpScale * texture2D( bumpMap, vBumpMapUv + dSTdy ).x - Hll;
		return vec2( dBx, dBy );
	}
	vec3 perturbNormalArb( vec3 surf_pos, vec3 surf_norm, vec2 dHdxy, float faceDirection ) {
		vec3 vSigmaX = normalize( dFdx( surf_pos.xyz ) );
		vec3 vSigmaY = normalize( dFdy( surf_pos.xyz ) );
		vec3 vN = surf_norm;
		vec3 R1 = cross( vSigmaY, vN );
		vec3 R2 = cross( vN, vSigmaX );
		float fDet = dot( vSigmaX, R1 ) * faceDirection;
		vec3 vGrad = sign( fDet ) * ( dHdxy.x * R1 + dHdxy.y * R2 );
		return normalize( abs( fDet ) * surf_norm - vGrad );
	}
#endif`,pw=`#if NUM_CLIPPING_PLANES > 0
	vec4 plane;
	#ifdef ALPHA_TO_COVERAGE
		float distanceToPlane, distanceGradient;
		float clipOpacity = 1.0;
		#pragma unroll_loop_start
		for ( int i = 0; i < UNION_CLIPPING_PLANES; i ++ ) {
			plane = clippingPlanes[ i ];
			distanceToPlane = - dot( vClipPosition, plane.xyz ) + plane.w;
			distanceGradient = fwidth( distanceToPlane ) / 2.0;
			clipOpacity *= smoothstep( - distanceGradient, distanceGradient, distanceToPlane );
			if ( clipOpacity == 0.0 ) discard;
		}
		#pragma unroll_loop_end
		#if UNION_CLIPPING_PLANES < NUM_CLIPPING_PLANES
			float unionClipOpacity = 1.0;
			#pragma unroll_loop_start
			for ( int i = UNION_CLIPPING_PLANES; i < NUM_CLIPPING_PLANES; i ++ ) {
				plane = clippingPlanes[ i ];
				distanceToPlane = - dot( vClipPosition, plane.xyz ) + plane.w;
				distanceGradient = fwidth( distanceToPlane ) / 2.0;
				unionClipOpacity *= 1.0 - smoothstep( - distanceGradient, distanceGradient, distanceToPlane );
			}
			#pragma unroll_loop_end
			clipOpacity *= 1.0 - unionClipOpacity;
		#endif
		diffuseColor.a *= clipOpacity;
		if ( diffuseColor.a == 0.0 ) discard;
	#else
		#pragma unroll_loop_start
		for ( int i = 0; i < UNION_CLIPPING_PLANES; i ++ ) {
			plane = clippingPlanes[ i ];
			if ( dot( vClipPosition, plane.xyz ) > plane.w ) discard;
		}
		#pragma unroll_loop_end
		#if UNION_CLIPPING_PLANES < NUM_CLIPPING_PLANES
			bool clipped = true;
			#pragma unroll_loop_start
			for ( int i = UNION_CLIPPING_PLANES; i < NUM_CLIPPING_PLANES; i ++ ) {
				plane = clippingPlanes[ i ];
				clipped = ( dot( vClipPosition, plane.xyz ) > plane.w ) && clipped;
			}
			#pragma unroll_loop_end
			if ( clipped ) discard;
		#endif
	#endif
#endif`,mw=`#if NUM_CLIPPING_PLANES > 0
	varying vec3 vClipPosition;
	uniform vec4 clippingPlanes[ NUM_CLIPPING_PLANES ];
#endif`,gw=`#if NUM_CLIPPING_PLANES > 0
	varying vec3 vClipPosition;
#endif`,_w=`#if NUM_CLIPPING_PLANES > 0
	vClipPosition = - mvPosition.xyz;
#endif`,yw=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA )
	diffuseColor *= vColor;
#endif`,xw=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA )
	varying vec4 vColor;
#endif`,vw=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA ) || defined( USE_INSTANCING_COLOR ) || defined( USE_BATCHING_COLOR )
	varying vec4 vColor;
#endif`,Sw=`#if defined( USE_COLOR ) || defined( USE_COLOR_ALPHA ) || defined( USE_INSTANCING_COLOR ) || defined( USE_BATCHING_COLOR )
	vColor = vec4( 1.0 );
#endif
#ifdef USE_COLOR_ALPHA
	vColor *= color;
#elif defined( USE_COLOR )
	vColor.rgb *= color;
#endif
#ifdef USE_INSTANCING_COLOR
	vColor.rgb *= instanceColor.rgb;
#endif
#ifdef USE_BATCHING_COLOR
	vColor *= getBatchingColor( getIndirectIndex( gl_DrawID ) );
#endif`,ww=`#define PI 3.141592653589793
#define PI2 6.283185307179586
#define PI_HALF 1.5707963267948966
#define RECIPROCAL_PI 0.3183098861837907
#define RECIPROCAL_PI2 0.15915494309189535
#define EPSILON 1e-6
#ifndef saturate
#define saturate( a ) clamp( a, 0.0, 1.0 )
#endif
#define whiteComplement( a ) ( 1.0 - saturate( a ) )
float pow2( const in float x ) { return x*x; }
vec3 pow2( const in vec3 x ) { return x*x; }
float pow3( const in float x ) { return x*x*x; }
float pow4( const in float x ) { float x2 = x*x; return x2*x2; }
float max3( const in vec3 v ) { return max( max( v.x, v.y ), v.z ); }
float average( const in vec3 v ) { return dot( v, vec3( 0.3333333 ) ); }
highp float rand( const in vec2 uv ) {
	const highp float a = 12.9898, b = 78.233, c = 43758.5453;
	highp float dt = dot( uv.xy, vec2( a,b ) ), sn = mod( dt, PI );
	return fract( sin( sn ) * c );
}
#ifdef HIGH_PRECISION
	float precisionSafeLength( vec3 v ) { return length( v ); }
#else
	float precisionSafeLength( vec3 v ) {
		float maxComponent = max3( abs( v ) );
		return length( v / maxComponent ) * maxComponent;
	}
#endif
struct IncidentLight {
	vec3 color;
	vec3 direction;
	bool visible;
};
struct ReflectedLight {
	vec3 directDiffuse;
	vec3 directSpecular;
	vec3 indirectDiffuse;
	vec3 indirectSpecular;
};
#ifdef USE_ALPHAHASH
	varying vec3 vPosition;
#endif
vec3 transformDirection( in vec3 dir, in mat4 matrix ) {
	return normalize( ( matrix * vec4( dir, 0.0 ) ).xyz );
}
#define inverseTransformDirection transformDirectionByInverseViewMatrix
vec3 transformNormalByInverseViewMatrix( in vec3 normal, in mat4 viewMatrix ) {
	return normalize( ( vec4( normal, 0.0 ) * viewMatrix ).xyz );
}
vec3 transformDirectionByInverseViewMatrix( in vec3 dir, in mat4 viewMatrix ) {
	return normalize( ( vec4( dir, 0.0 ) * viewMatrix ).xyz );
}
bool isPerspectiveMatrix( mat4 m ) {
	return m[ 2 ][ 3 ] == - 1.0;
}
vec2 equirectUv( in vec3 dir ) {
	float u = atan( dir.z, dir.x ) * RECIPROCAL_PI2 + 0.5;
	float v = asin( clamp( dir.y, - 1.0, 1.0 ) ) * RECIPROCAL_PI + 0.5;
	return vec2( u, v );
}
vec3 BRDF_Lambert( const in vec3 diffuseColor ) {
	return RECIPROCAL_PI * diffuseColor;
}
vec3 F_Schlick( const in vec3 f0, const in float f90, const in float dotVH ) {
	float fresnel = exp2( ( - 5.55473 * dotVH - 6.98316 ) * dotVH );
	return f0 * ( 1.0 - fresnel ) + ( f90 * fresnel );
}
float F_Schlick( const in float f0, const in float f90, const in float dotVH ) {
	float fresnel = exp2( ( - 5.55473 * dotVH - 6.98316 ) * dotVH );
	return f0 * ( 1.0 - fresnel ) + ( f90 * fresnel );
} // validated`,Mw=`vec3 transformedNormal = objectNormal;
#ifdef USE_TANGENT
	vec3 transformedTangent = objectTangent;
#endif
#ifdef USE_BATCHING
	mat3 bm = mat3( batchingMatrix );
	transformedNormal /= vec3( dot( bm[ 0 ], bm[ 0 ] ), dot( bm[ 1 ], bm[ 1 ] ), dot( bm[ 2 ], bm[ 2 ] ) );
	transformedNormal = bm * transformedNormal;
	#ifdef USE_TANGENT
		transformedTangent = bm * transformedTangent;
	#endif
#endif
#ifdef USE_INSTANCING
	mat3 im = mat3( instanceMatrix );
	transformedNormal /= vec3( dot( im[ 0 ], im[ 0 ] ), dot( im[ 1 ], im[ 1 ] ), dot( im[ 2 ], im[ 2 ] ) );
	transformedNormal = im * transformedNormal;
	#ifdef USE_TANGENT
		transformedTangent = im * transformedTangent;
	#endif
#endif
transformedNormal = normalMatrix * transformedNormal;
#ifdef FLIP_SIDED
	transformedNormal = - transformedNormal;
#endif
#ifdef USE_TANGENT
	transformedTangent = ( modelViewMatrix * vec4( transformedTangent, 0.0 ) ).xyz;
#endif`,bw=`#ifdef USE_DISPLACEMENTMAP
	uniform sampler2D displacementMap;
	uniform float displacementScale;
	uniform float displacementBias;
#endif`,Tw=`#ifdef USE_DISPLACEMENTMAP
	transformed += normalize( objectNormal ) * ( texture2D( displacementMap, vDisplacementMapUv ).x * displacementScale + displacementBias );
#endif`,Ew=`#ifdef USE_EMISSIVEMAP
	vec4 emissiveColor = texture2D( emissiveMap, vEmissiveMapUv );
	#ifdef DECODE_VIDEO_TEXTURE_EMISSIVE
		emissiveColor = sRGBTransferEOTF( emissiveColor );
	#endif
	totalEmissiveRadiance *= emissiveColor.rgb;
#endif`,Aw=`#ifdef USE_EMISSIVEMAP
	uniform sampler2D emissiveMap;
#endif`,Rw="gl_FragColor = linearToOutputTexel( gl_FragColor );",Cw=`vec4 LinearTransferOETF( in vec4 value ) {
	return value;
}
vec4 sRGBTransferEOTF( in vec4 value ) {
	return vec4( mix( pow( value.rgb * 0.9478672986 + vec3( 0.0521327014 ), vec3( 2.4 ) ), value.rgb * 0.0773993808, vec3( lessThanEqual( value.rgb, vec3( 0.04045 ) ) ) ), value.a );
}
vec4 sRGBTransferOETF( in vec4 value ) {
	return vec4( mix( pow( value.rgb, vec3( 0.41666 ) ) * 1.055 - vec3( 0.055 ), value.rgb * 12.92, vec3( lessThanEqual( value.rgb, vec3( 0.0031308 ) ) ) ), value.a );
}`,Pw=`#ifdef USE_ENVMAP
	#ifdef ENV_WORLDPOS
		vec3 cameraToFrag;
		if ( isOrthographic ) {
			cameraToFrag = normalize( vec3( - viewMatrix[ 0 ][ 2 ], - viewMatrix[ 1 ][ 2 ], - viewMatrix[ 2 ][ 2 ] ) );
		} else {
			cameraToFrag = normalize( vWorldPosition - cameraPosition );
		}
		vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
		#ifdef ENVMAP_MODE_REFLECTION
			vec3 reflectVec = reflect( cameraToFrag, worldNormal );
		#else
			vec3 reflectVec = refract( cameraToFrag, worldNormal, refractionRatio );
		#endif
	#else
		vec3 reflectVec = vReflect;
	#endif
	#ifdef ENVMAP_TYPE_CUBE
		vec4 envColor = textureCube( envMap, envMapRotation * reflectVec );
		#ifdef ENVMAP_BLENDING_MULTIPLY
			outgoingLight = mix( outgoingLight, outgoingLight * envColor.xyz, specularStrength * reflectivity );
		#elif defined( ENVMAP_BLENDING_MIX )
			outgoingLight = mix( outgoingLight, envColor.xyz, specularStrength * reflectivity );
		#elif defined( ENVMAP_BLENDING_ADD )
			outgoingLight += envColor.xyz * specularStrength * reflectivity;
		#endif
	#endif
#endif`,Iw=`#ifdef USE_ENVMAP
	uniform float envMapIntensity;
	uniform mat3 envMapRotation;
	uniform samplerCube envMap;
	#ifdef ENVMAP_TYPE_PMREM
		float roughnessToMip( const in float roughness ) {
			float r = clamp( roughness, 0.0, 1.0 );
			return ENVMAP_MAX_LOD * r * ( 2.0 - r );
		}
	#endif
#endif`,Lw=`#ifdef USE_ENVMAP
	uniform float reflectivity;
	#if defined( USE_BUMPMAP ) || defined( USE_NORMALMAP ) || defined( PHONG ) || defined( LAMBERT )
		#define ENV_WORLDPOS
	#endif
	#ifdef ENV_WORLDPOS
		varying vec3 vWorldPosition;
		uniform float refractionRatio;
	#else
		varying vec3 vReflect;
	#endif
#endif`,Nw=`#ifdef USE_ENVMAP
	#if defined( USE_BUMPMAP ) || defined( USE_NORMALMAP ) || defined( PHONG ) || defined( LAMBERT )
		#define ENV_WORLDPOS
	#endif
	#ifdef ENV_WORLDPOS
		
		varying vec3 vWorldPosition;
	#else
		varying vec3 vReflect;
		uniform float refractionRatio;
	#endif
#endif`,Dw=`#ifdef USE_ENVMAP
	#ifdef ENV_WORLDPOS
		vWorldPosition = worldPosition.xyz;
	#else
		vec3 cameraToVertex;
		if ( isOrthographic ) {
			cameraToVertex = normalize( vec3( - viewMatrix[ 0 ][ 2 ], - viewMatrix[ 1 ][ 2 ], - viewMatrix[ 2 ][ 2 ] ) );
		} else {
			cameraToVertex = normalize( worldPosition.xyz - cameraPosition );
		}
		vec3 worldNormal = transformNormalByInverseViewMatrix( transformedNormal, viewMatrix );
		#ifdef ENVMAP_MODE_REFLECTION
			vReflect = reflect( cameraToVertex, worldNormal );
		#else
			vReflect = refract( cameraToVertex, worldNormal, refractionRatio );
		#endif
	#endif
#endif`,Ow=`#ifdef USE_FOG
	vFogDepth = - mvPosition.z;
#endif`,Uw=`#ifdef USE_FOG
	varying float vFogDepth;
#endif`,Fw=`#ifdef USE_FOG
	#ifdef FOG_EXP2
		float fogFactor = 1.0 - exp( - fogDensity * fogDensity * vFogDepth * vFogDepth );
	#else
		float fogFactor = smoothstep( fogNear, fogFar, vFogDepth );
	#endif
	gl_FragColor.rgb = mix( gl_FragColor.rgb, fogColor, fogFactor );
#endif`,Bw=`#ifdef USE_FOG
	uniform vec3 fogColor;
	varying float vFogDepth;
	#ifdef FOG_EXP2
		uniform float fogDensity;
	#else
		uniform float fogNear;
		uniform float fogFar;
	#endif
#endif`,kw=`#ifdef USE_GRADIENTMAP
	uniform sampler2D gradientMap;
#endif
vec3 getGradientIrradiance( vec3 normal, vec3 lightDirection ) {
	float dotNL = dot( normal, lightDirection );
	vec2 coord = vec2( dotNL * 0.5 + 0.5, 0.0 );
	#ifdef USE_GRADIENTMAP
		return vec3( texture2D( gradientMap, coord ).r );
	#else
		vec2 fw = fwidth( coord ) * 0.5;
		return mix( vec3( 0.7 ), vec3( 1.0 ), smoothstep( 0.7 - fw.x, 0.7 + fw.x, coord.x ) );
	#endif
}`,zw=`#ifdef USE_LIGHTMAP
	uniform sampler2D lightMap;
	uniform float lightMapIntensity;
#endif`,Hw=`LambertMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.specularStrength = specularStrength;`,Vw=`varying vec3 vViewPosition;
struct LambertMaterial {
	vec3 diffuseColor;
	float specularStrength;
};
void RE_Direct_Lambert( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in LambertMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
void RE_IndirectDiffuse_Lambert( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in LambertMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_Lambert
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Lambert`,Gw=`uniform bool receiveShadow;
uniform vec3 ambientLightColor;
#if defined( USE_LIGHT_PROBES )
	uniform vec3 lightProbe[ 9 ];
#endif
vec3 shGetIrradianceAt( in vec3 normal, in vec3 shCoefficients[ 9 ] ) {
	float x = normal.x, y = normal.y, z = normal.z;
	vec3 result = shCoefficients[ 0 ] * 0.886227;
	result += shCoefficients[ 1 ] * 2.0 * 0.511664 * y;
	result += shCoefficients[ 2 ] * 2.0 * 0.511664 * z;
	result += shCoefficients[ 3 ] * 2.0 * 0.511664 * x;
	result += shCoefficients[ 4 ] * 2.0 * 0.429043 * x * y;
	result += shCoefficients[ 5 ] * 2.0 * 0.429043 * y * z;
	result += shCoefficients[ 6 ] * ( 0.743125 * z * z - 0.247708 );
	result += shCoefficients[ 7 ] * 2.0 * 0.429043 * x * z;
	result += shCoefficients[ 8 ] * 0.429043 * ( x * x - y * y );
	return result;
}
vec3 getLightProbeIrradiance( const in vec3 lightProbe[ 9 ], const in vec3 normal ) {
	vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
	vec3 irradiance = shGetIrradianceAt( worldNormal, lightProbe );
	return irradiance;
}
vec3 getAmbientLightIrradiance( const in vec3 ambientLightColor ) {
	vec3 irradiance = ambientLightColor;
	return irradiance;
}
float getDistanceAttenuation( const in float lightDistance, const in float cutoffDistance, const in float decayExponent ) {
	float distanceFalloff = 1.0 / max( pow( lightDistance, decayExponent ), 0.01 );
	if ( cutoffDistance > 0.0 ) {
		distanceFalloff *= pow2( saturate( 1.0 - pow4( lightDistance / cutoffDistance ) ) );
	}
	return distanceFalloff;
}
float getSpotAttenuation( const in float coneCosine, const in float penumbraCosine, const in float angleCosine ) {
	return smoothstep( coneCosine, penumbraCosine, angleCosine );
}
#if NUM_SUN_LIGHTS > 0
	struct SunLight {
		vec3 direction;
		vec3 color;
	};
	uniform SunLight sunLights[ NUM_SUN_LIGHTS ];
	void getSunLightInfo( const in SunLight sunLight, out IncidentLight light ) {
		light.color = sunLight.color;
		light.direction = sunLight.direction;
		light.visible = true;
	}
#endif
#if NUM_DIR_LIGHTS > 0
	struct DirectionalLight {
		vec3 direction;
		vec3 color;
	};
	uniform DirectionalLight directionalLights[ NUM_DIR_LIGHTS ];
	void getDirectionalLightInfo( const in DirectionalLight directionalLight, out IncidentLight light ) {
		light.color = directionalLight.color;
		light.direction = directionalLight.direction;
		light.visible = true;
	}
#endif
#if NUM_POINT_LIGHTS > 0
	struct PointLight {
		vec3 position;
		vec3 color;
		float distance;
		float decay;
	};
	uniform PointLight pointLights[ NUM_POINT_LIGHTS ];
	void getPointLightInfo( const in PointLight pointLight, const in vec3 geometryPosition, out IncidentLight light ) {
		vec3 lVector = pointLight.position - geometryPosition;
		light.direction = normalize( lVector );
		float lightDistance = length( lVector );
		light.color = pointLight.color;
		light.color *= getDistanceAttenuation( lightDistance, pointLight.distance, pointLight.decay );
		light.visible = ( light.color != vec3( 0.0 ) );
	}
#endif
#if NUM_SPOT_LIGHTS > 0
	struct SpotLight {
		vec3 position;
		vec3 direction;
		vec3 color;
		float distance;
		float decay;
		float coneCos;
		float penumbraCos;
	};
	uniform SpotLight spotLights[ NUM_SPOT_LIGHTS ];
	void getSpotLightInfo( const in SpotLight spotLight, const in vec3 geometryPosition, out IncidentLight light ) {
		vec3 lVector = spotLight.position - geometryPosition;
		light.direction = normalize( lVector );
		float angleCos = dot( light.direction, spotLight.direction );
		float spotAttenuation = getSpotAttenuation( spotLight.coneCos, spotLight.penumbraCos, angleCos );
		if ( spotAttenuation > 0.0 ) {
			float lightDistance = length( lVector );
			light.color = spotLight.color * spotAttenuation;
			light.color *= getDistanceAttenuation( lightDistance, spotLight.distance, spotLight.decay );
			light.visible = ( light.color != vec3( 0.0 ) );
		} else {
			light.color = vec3( 0.0 );
			light.visible = false;
		}
	}
#endif
#if NUM_RECT_AREA_LIGHTS > 0
	struct RectAreaLight {
		vec3 color;
		vec3 position;
		vec3 halfWidth;
		vec3 halfHeight;
	};
	uniform sampler2D ltc_1;	uniform sampler2D ltc_2;
	uniform RectAreaLight rectAreaLights[ NUM_RECT_AREA_LIGHTS ];
#endif
#if NUM_HEMI_LIGHTS > 0
	struct HemisphereLight {
		vec3 direction;
		vec3 skyColor;
		vec3 groundColor;
	};
	uniform HemisphereLight hemisphereLights[ NUM_HEMI_LIGHTS ];
	vec3 getHemisphereLightIrradiance( const in HemisphereLight hemiLight, const in vec3 normal ) {
		float dotNL = dot( normal, hemiLight.direction );
		float hemiDiffuseWeight = 0.5 * dotNL + 0.5;
		vec3 irradiance = mix( hemiLight.groundColor, hemiLight.skyColor, hemiDiffuseWeight );
		return irradiance;
	}
#endif
#include <lightprobes_pars_fragment>`,Ww=`#ifdef USE_ENVMAP
	vec3 getIBLIrradiance( const in vec3 normal ) {
		#ifdef ENVMAP_TYPE_PMREM
			vec3 worldNormal = transformNormalByInverseViewMatrix( normal, viewMatrix );
			vec4 envMapColor = textureLod( envMap, envMapRotation * worldNormal, ENVMAP_MAX_LOD );
			return PI * envMapColor.rgb * envMapIntensity;
		#else
			return vec3( 0.0 );
		#endif
	}
	vec3 getIBLRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness ) {
		#ifdef ENVMAP_TYPE_PMREM
			vec3 reflectVec = reflect( - viewDir, normal );
			reflectVec = normalize( mix( reflectVec, normal, pow4( roughness ) ) );
			reflectVec = transformDirectionByInverseViewMatrix( reflectVec, viewMatrix );
			vec4 envMapColor = textureLod( envMap, envMapRotation * reflectVec, roughnessToMip( roughness ) );
			return envMapColor.rgb * envMapIntensity;
		#else
			return vec3( 0.0 );
		#endif
	}
	#ifdef USE_RETROREFLECTION
		vec3 getIBLRetroRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness ) {
			#ifdef ENVMAP_TYPE_PMREM
				vec3 retroVec = normalize( mix( viewDir, normal, pow4( roughness ) ) );
				retroVec = transformDirectionByInverseViewMatrix( retroVec, viewMatrix );
				vec4 envMapColor = textureLod( envMap, envMapRotation * retroVec, roughnessToMip( roughness ) );
				return envMapColor.rgb * envMapIntensity;
			#else
				return vec3( 0.0 );
			#endif
		}
	#endif
	#ifdef USE_ANISOTROPY
		vec3 getIBLAnisotropyRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness, const in vec3 bitangent, const in float anisotropy ) {
			#ifdef ENVMAP_TYPE_PMREM
				vec3 bentNormal = cross( bitangent, viewDir );
				bentNormal = normalize( cross( bentNormal, bitangent ) );
				bentNormal = normalize( mix( bentNormal, normal, pow2( pow2( 1.0 - anisotropy * ( 1.0 - roughness ) ) ) ) );
				return getIBLRadiance( viewDir, bentNormal, roughness );
			#else
				return vec3( 0.0 );
			#endif
		}
		#ifdef USE_RETROREFLECTION
			vec3 getIBLAnisotropyRetroRadiance( const in vec3 viewDir, const in vec3 normal, const in float roughness, const in vec3 bitangent, const in float anisotropy ) {
				#ifdef ENVMAP_TYPE_PMREM
					vec3 bentNormal = cross( bitangent, viewDir );
					bentNormal = normalize( cross( bentNormal, bitangent ) );
					bentNormal = normalize( mix( bentNormal, normal, pow2( pow2( 1.0 - anisotropy * ( 1.0 - roughness ) ) ) ) );
					return getIBLRetroRadiance( viewDir, bentNormal, roughness );
				#else
					return vec3( 0.0 );
				#endif
			}
		#endif
	#endif
#endif`,Xw=`ToonMaterial material;
material.diffuseColor = diffuseColor.rgb;`,$w=`varying vec3 vViewPosition;
struct ToonMaterial {
	vec3 diffuseColor;
};
void RE_Direct_Toon( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in ToonMaterial material, inout ReflectedLight reflectedLight ) {
	vec3 irradiance = getGradientIrradiance( geometryNormal, directLight.direction ) * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
void RE_IndirectDiffuse_Toon( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in ToonMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_Toon
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Toon`,qw=`BlinnPhongMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.specularColor = specular;
material.specularShininess = shininess;
material.specularStrength = specularStrength;`,Yw=`varying vec3 vViewPosition;
struct BlinnPhongMaterial {
	vec3 diffuseColor;
	vec3 specularColor;
	float specularShininess;
	float specularStrength;
};
void RE_Direct_BlinnPhong( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in BlinnPhongMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	reflectedLight.directDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
	reflectedLight.directSpecular += irradiance * BRDF_BlinnPhong( directLight.direction, geometryViewDir, geometryNormal, material.specularColor, material.specularShininess ) * material.specularStrength;
}
void RE_IndirectDiffuse_BlinnPhong( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in BlinnPhongMaterial material, inout ReflectedLight reflectedLight ) {
	reflectedLight.indirectDiffuse += irradiance * BRDF_Lambert( material.diffuseColor );
}
#define RE_Direct				RE_Direct_BlinnPhong
#define RE_IndirectDiffuse		RE_IndirectDiffuse_BlinnPhong`,Kw=`PhysicalMaterial material;
material.diffuseColor = diffuseColor.rgb;
material.diffuseContribution = diffuseColor.rgb * ( 1.0 - metalnessFactor );
material.metalness = metalnessFactor;
vec3 dxy = max( abs( dFdx( nonPerturbedNormal ) ), abs( dFdy( nonPerturbedNormal ) ) );
float geometryRoughness = max( max( dxy.x, dxy.y ), dxy.z );
material.roughness = max( roughnessFactor, 0.045 );
material.roughness += geometryRoughness;
material.roughness = min( material.roughness, 1.0 );
#ifdef USE_DIFFUSE_ROUGHNESS
	float diffuseRoughnessFactor = diffuseRoughness;
	#ifdef USE_DIFFUSE_ROUGHNESSMAP
		diffuseRoughnessFactor *= texture2D( diffuseRoughnessMap, vDiffuseRoughnessMapUv ).r;
	#endif
	material.diffuseRoughness = saturate( diffuseRoughnessFactor );
#endif
#ifdef IOR
	material.ior = ior;
	#ifdef USE_SPECULAR
		float specularIntensityFactor = specularIntensity;
		vec3 specularColorFactor = specularColor;
		#ifdef USE_SPECULAR_COLORMAP
			specularColorFactor *= texture2D( specularColorMap, vSpecularColorMapUv ).rgb;
		#endif
		#ifdef USE_SPECULAR_INTENSITYMAP
			specularIntensityFactor *= texture2D( specularIntensityMap, vSpecularIntensityMapUv ).a;
		#endif
		material.specularF90 = mix( specularIntensityFactor, 1.0, metalnessFactor );
	#else
		float specularIntensityFactor = 1.0;
		vec3 specularColorFactor = vec3( 1.0 );
		material.specularF90 = 1.0;
	#endif
	material.specularColor = min( pow2( ( material.ior - 1.0 ) / ( material.ior + 1.0 ) ) * specularColorFactor, vec3( 1.0 ) ) * specularIntensityFactor;
	material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
#else
	material.specularColor = vec3( 0.04 );
	material.specularColorBlended = mix( material.specularColor, diffuseColor.rgb, metalnessFactor );
	material.specularF90 = 1.0;
#endif
#ifdef USE_CLEARCOAT
	material.clearcoat = clearcoat;
	material.clearcoatRoughness = clearcoatRoughness;
	material.clearcoatF0 = vec3( 0.04 );
	material.clearcoatF90 = 1.0;
	#ifdef USE_CLEARCOATMAP
		material.clearcoat *= texture2D( clearcoatMap, vClearcoatMapUv ).x;
	#endif
	#ifdef USE_CLEARCOAT_ROUGHNESSMAP
		material.clearcoatRoughness *= texture2D( clearcoatRoughnessMap, vClearcoatRoughnessMapUv ).y;
	#endif
	material.clearcoat = saturate( material.clearcoat );	material.clearcoatRoughness = max( material.clearcoatRoughness, 0.045 );
	material.clearcoatRoughness += geometryRoughness;
	material.clearcoatRoughness = min( material.clearcoatRoughness, 1.0 );
#endif
#ifdef USE_DISPERSION
	material.dispersion = dispersion;
#endif
#ifdef USE_RETROREFLECTION
	material.retroreflectivity = retroreflectivity;
#endif
#ifdef USE_IRIDESCENCE
	material.iridescence = iridescence;
	material.iridescenceIOR = iridescenceIOR;
	#ifdef USE_IRIDESCENCEMAP
		material.iridescence *= texture2D( iridescenceMap, vIridescenceMapUv ).r;
	#endif
	#ifdef USE_IRIDESCENCE_THICKNESSMAP
		material.iridescenceThickness = (iridescenceThicknessMaximum - iridescenceThicknessMinimum) * texture2D( iridescenceThicknessMap, vIridescenceThicknessMapUv ).g + iridescenceThicknessMinimum;
	#else
		material.iridescenceThickness = iridescenceThicknessMaximum;
	#endif
#endif
#ifdef USE_SHEEN
	material.sheenColor = sheenColor;
	#ifdef USE_SHEEN_COLORMAP
		material.sheenColor *= texture2D( sheenColorMap, vSheenColorMapUv ).rgb;
	#endif
	material.sheenRoughness = clamp( sheenRoughness, 0.0001, 1.0 );
	#ifdef USE_SHEEN_ROUGHNESSMAP
		material.sheenRoughness *= texture2D( sheenRoughnessMap, vSheenRoughnessMapUv ).a;
	#endif
#endif
#ifdef USE_ANISOTROPY
	#ifdef USE_ANISOTROPYMAP
		mat2 anisotropyMat = mat2( anisotropyVector.x, anisotropyVector.y, - anisotropyVector.y, anisotropyVector.x );
		vec3 anisotropyPolar = texture2D( anisotropyMap, vAnisotropyMapUv ).rgb;
		vec2 anisotropyV = anisotropyMat * normalize( 2.0 * anisotropyPolar.rg - vec2( 1.0 ) ) * anisotropyPolar.b;
	#else
		vec2 anisotropyV = anisotropyVector;
	#endif
	material.anisotropy = length( anisotropyV );
	if( material.anisotropy == 0.0 ) {
		anisotropyV = vec2( 1.0, 0.0 );
	} else {
		anisotropyV /= material.anisotropy;
		material.anisotropy = saturate( material.anisotropy );
	}
	material.alphaT = mix( pow2( material.roughness ), 1.0, pow2( material.anisotropy ) );
	material.anisotropyT = tbn[ 0 ] * anisotropyV.x + tbn[ 1 ] * anisotropyV.y;
	material.anisotropyB = tbn[ 1 ] * anisotropyV.x - tbn[ 0 ] * anisotropyV.y;
#endif`,Zw=`uniform sampler2D dfgLUT;
struct PhysicalMaterial {
	vec3 diffuseColor;
	vec3 diffuseContribution;
	vec3 specularColor;
	vec3 specularColorBlended;
	float roughness;
	float metalness;
	float specularF90;
	float dispersion;
	vec2 dfg;
	vec3 multiScatteringCompensation;
	#ifdef USE_DIFFUSE_ROUGHNESS
		float diffuseRoughness;
	#endif
	#ifdef USE_RETROREFLECTION
		float retroreflectivity;
	#endif
	#ifdef USE_CLEARCOAT
		float clearcoat;
		float clearcoatRoughness;
		vec3 clearcoatF0;
		float clearcoatF90;
	#endif
	#ifdef USE_IRIDESCENCE
		float iridescence;
		float iridescenceIOR;
		float iridescenceThickness;
		vec3 iridescenceFresnel;
		vec3 iridescenceF0Dielectric;
		vec3 iridescenceF0Metallic;
	#endif
	#ifdef USE_SHEEN
		vec3 sheenColor;
		float sheenRoughness;
	#endif
	#ifdef IOR
		float ior;
	#endif
	#ifdef USE_TRANSMISSION
		float transmission;
		float transmissionAlpha;
		float thickness;
		float attenuationDistance;
		vec3 attenuationColor;
	#endif
	#ifdef USE_ANISOTROPY
		float anisotropy;
		float alphaT;
		vec3 anisotropyT;
		vec3 anisotropyB;
	#endif
};
vec3 clearcoatSpecularDirect = vec3( 0.0 );
vec3 clearcoatSpecularIndirect = vec3( 0.0 );
vec3 sheenSpecularDirect = vec3( 0.0 );
vec3 sheenSpecularIndirect = vec3(0.0 );
vec3 Schlick_to_F0( const in vec3 f, const in float f90, const in float dotVH ) {
    float x = clamp( 1.0 - dotVH, 0.0, 1.0 );
    float x2 = x * x;
    float x5 = clamp( x * x2 * x2, 0.0, 0.9999 );
    return ( f - vec3( f90 ) * x5 ) / ( 1.0 - x5 );
}
#ifdef USE_DIFFUSE_ROUGHNESS
	const float EON_EPSILON = 1e-7;
	float FON_DirectionalAlbedo( const in float mu, const in float roughness, const in float A ) {
		float muComp = 1.0 - mu;
		float gOverPi = muComp * ( 0.0571085289 + muComp * ( 0.491881867 + muComp * ( - 0.332181442 + muComp * 0.0714429953 ) ) );
		return A * ( 1.0 + roughness * gOverPi );
	}
	vec3 BRDF_EON( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in vec3 diffuseColor, const in float roughness ) {
		vec3 rho = saturate( diffuseColor );
		if ( roughness <= EON_EPSILON ) return BRDF_Lambert( rho );
		float dotNL = saturate( dot( normal, lightDir ) );
		float dotNV = saturate( dot( normal, viewDir ) );
		float s = dot( lightDir, viewDir ) - dotNL * dotNV;
		float sOverT = ( s > 0.0 ) ? s / max( max( dotNL, dotNV ), EON_EPSILON ) : s;
		float A = 1.0 / ( 1.0 + ( 0.5 - 2.0 / ( 3.0 * PI ) ) * roughness );
		vec3 singleScatter = rho * RECIPROCAL_PI * A * ( 1.0 + roughness * sOverT );
		float averageAlbedo = A * ( 1.0 + ( 2.0 / 3.0 - 28.0 / ( 15.0 * PI ) ) * roughness );
		float albedoV = FON_DirectionalAlbedo( dotNV, roughness, A );
		float albedoL = FON_DirectionalAlbedo( dotNL, roughness, A );
		vec3 rhoMultiScatter = rho * rho * averageAlbedo / max( vec3( EON_EPSILON ), vec3( 1.0 ) - rho * ( 1.0 - averageAlbedo ) );
		vec3 multiScatter = rhoMultiScatter * RECIPROCAL_PI
			* max( EON_EPSILON, 1.0 - albedoV )
			* max( EON_EPSILON, 1.0 - albedoL )
			/ max( EON_EPSILON, 1.0 - averageAlbedo );
		return singleScatter + multiScatter;
	}
	vec3 EON_DirectionalAlbedo( const in vec3 diffuseColor, const in float roughness, const in float dotNV ) {
		vec3 rho = saturate( diffuseColor );
		if ( roughness <= EON_EPSILON ) return rho;
		float A = 1.0 / ( 1.0 + ( 0.5 - 2.0 / ( 3.0 * PI ) ) * roughness );
		float directionalAlbedo = FON_DirectionalAlbedo( dotNV, roughness, A );
		float averageAlbedo = A * ( 1.0 + ( 2.0 / 3.0 - 28.0 / ( 15.0 * PI ) ) * roughness );
		vec3 rhoMultiScatter = rho * rho * averageAlbedo / max( vec3( EON_EPSILON ), vec3( 1.0 ) - rho * ( 1.0 - averageAlbedo ) );
		return rho * directionalAlbedo + rhoMultiScatter * ( 1.0 - directionalAlbedo );
	}
#endif
float V_GGX_SmithCorrelated( const in float alpha, const in float dotNL, const in float dotNV ) {
	float a2 = pow2( alpha );
	float gv = dotNL * sqrt( a2 + ( 1.0 - a2 ) * pow2( dotNV ) );
	float gl = dotNV * sqrt( a2 + ( 1.0 - a2 ) * pow2( dotNL ) );
	return 0.5 / max( gv + gl, EPSILON );
}
float D_GGX( const in float alpha, const in float dotNH ) {
	float a2 = pow2( alpha );
	float denom = pow2( dotNH ) * ( a2 - 1.0 ) + 1.0;
	return RECIPROCAL_PI * a2 / pow2( denom );
}
#ifdef USE_ANISOTROPY
	float V_GGX_SmithCorrelated_Anisotropic( const in float alphaT, const in float alphaB, const in float dotTV, const in float dotBV, const in float dotTL, const in float dotBL, const in float dotNV, const in float dotNL ) {
		float gv = dotNL * length( vec3( alphaT * dotTV, alphaB * dotBV, dotNV ) );
		float gl = dotNV * length( vec3( alphaT * dotTL, alphaB * dotBL, dotNL ) );
		return 0.5 / max( gv + gl, EPSILON );
	}
	float D_GGX_Anisotropic( const in float alphaT, const in float alphaB, const in float dotNH, const in float dotTH, const in float dotBH ) {
		float a2 = alphaT * alphaB;
		highp vec3 v = vec3( alphaB * dotTH, alphaT * dotBH, a2 * dotNH );
		highp float v2 = dot( v, v );
		float w2 = a2 / v2;
		return RECIPROCAL_PI * a2 * pow2 ( w2 );
	}
#endif
#ifdef USE_CLEARCOAT
	vec3 BRDF_GGX_Clearcoat( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in PhysicalMaterial material) {
		vec3 f0 = material.clearcoatF0;
		float f90 = material.clearcoatF90;
		float roughness = max( material.clearcoatRoughness, 0.045 );
		float alpha = pow2( roughness );
		vec3 halfDir = normalize( lightDir + viewDir );
		float dotNL = saturate( dot( normal, lightDir ) );
		float dotNV = saturate( dot( normal, viewDir ) );
		float dotNH = saturate( dot( normal, halfDir ) );
		float dotVH = saturate( dot( viewDir, halfDir ) );
		vec3 F = F_Schlick( f0, f90, dotVH );
		float V = V_GGX_SmithCorrelated( alpha, dotNL, dotNV );
		float D = D_GGX( alpha, dotNH );
		return F * ( V * D );
	}
#endif
vec3 BRDF_GGX( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, const in PhysicalMaterial material ) {
	vec3 f0 = material.specularColorBlended;
	float f90 = material.specularF90;
	float roughness = max( material.roughness, 0.045 );
	float alpha = pow2( roughness );
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNL = saturate( dot( normal, lightDir ) );
	float dotNV = saturate( dot( normal, viewDir ) );
	float dotNH = saturate( dot( normal, halfDir ) );
	float dotVH = saturate( dot( viewDir, halfDir ) );
	vec3 F = F_Schlick( f0, f90, dotVH );
	#ifdef USE_IRIDESCENCE
		F = mix( F, material.iridescenceFresnel, material.iridescence );
	#endif
	#ifdef USE_ANISOTROPY
		float dotTL = dot( material.anisotropyT, lightDir );
		float dotTV = dot( material.anisotropyT, viewDir );
		float dotTH = dot( material.anisotropyT, halfDir );
		float dotBL = dot( material.anisotropyB, lightDir );
		float dotBV = dot( material.anisotropyB, viewDir );
		float dotBH = dot( material.anisotropyB, halfDir );
		float alphaT = max( material.alphaT, alpha );
		float V = V_GGX_SmithCorrelated_Anisotropic( alphaT, alpha, dotTV, dotBV, dotTL, dotBL, dotNV, dotNL );
		float D = D_GGX_Anisotropic( alphaT, alpha, dotNH, dotTH, dotBH );
	#else
		float V = V_GGX_SmithCorrelated( alpha, dotNL, dotNV );
		float D = D_GGX( alpha, dotNH );
	#endif
	return F * ( V * D );
}
vec2 LTC_Uv( const in vec3 N, const in vec3 V, const in float roughness ) {
	const float LUT_SIZE = 64.0;
	const float LUT_SCALE = ( LUT_SIZE - 1.0 ) / LUT_SIZE;
	const float LUT_BIAS = 0.5 / LUT_SIZE;
	float dotNV = saturate( dot( N, V ) );
	vec2 uv = vec2( roughness, sqrt( 1.0 - dotNV ) );
	uv = uv * LUT_SCALE + LUT_BIAS;
	return uv;
}
float LTC_ClippedSphereFormFactor( const in vec3 f ) {
	float l = length( f );
	return max( ( l * l + f.z ) / ( l + 1.0 ), 0.0 );
}
vec3 LTC_EdgeVectorFormFactor( const in vec3 v1, const in vec3 v2 ) {
	float x = dot( v1, v2 );
	float y = abs( x );
	float a = 0.8543985 + ( 0.4965155 + 0.0145206 * y ) * y;
	float b = 3.4175940 + ( 4.1616724 + y ) * y;
	float v = a / b;
	float theta_sintheta = ( x > 0.0 ) ? v : 0.5 * inversesqrt( max( 1.0 - x * x, 1e-7 ) ) - v;
	return cross( v1, v2 ) * theta_sintheta;
}
vec3 LTC_Evaluate( const in vec3 N, const in vec3 V, const in vec3 P, const in mat3 mInv, const in vec3 rectCoords[ 4 ] ) {
	vec3 v1 = rectCoords[ 1 ] - rectCoords[ 0 ];
	vec3 v2 = rectCoords[ 3 ] - rectCoords[ 0 ];
	vec3 lightNormal = cross( v1, v2 );
	if( dot( lightNormal, P - rectCoords[ 0 ] ) < 0.0 ) return vec3( 0.0 );
	vec3 T1, T2;
	T1 = normalize( V - N * dot( V, N ) );
	T2 = - cross( N, T1 );
	mat3 mat = mInv * transpose( mat3( T1, T2, N ) );
	vec3 coords[ 4 ];
	coords[ 0 ] = mat * ( rectCoords[ 0 ] - P );
	coords[ 1 ] = mat * ( rectCoords[ 1 ] - P );
	coords[ 2 ] = mat * ( rectCoords[ 2 ] - P );
	coords[ 3 ] = mat * ( rectCoords[ 3 ] - P );
	coords[ 0 ] = normalize( coords[ 0 ] );
	coords[ 1 ] = normalize( coords[ 1 ] );
	coords[ 2 ] = normalize( coords[ 2 ] );
	coords[ 3 ] = normalize( coords[ 3 ] );
	vec3 vectorFormFactor = vec3( 0.0 );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 0 ], coords[ 1 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 1 ], coords[ 2 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 2 ], coords[ 3 ] );
	vectorFormFactor += LTC_EdgeVectorFormFactor( coords[ 3 ], coords[ 0 ] );
	float result = LTC_ClippedSphereFormFactor( vectorFormFactor );
	return vec3( result );
}
#if defined( USE_SHEEN )
float D_Charlie( float roughness, float dotNH ) {
	float alpha = pow2( roughness );
	float invAlpha = 1.0 / alpha;
	float cos2h = dotNH * dotNH;
	float sin2h = max( 1.0 - cos2h, 0.0078125 );
	return ( 2.0 + invAlpha ) * pow( sin2h, invAlpha * 0.5 ) / ( 2.0 * PI );
}
float V_Neubelt( float dotNV, float dotNL ) {
	return saturate( 1.0 / ( 4.0 * ( dotNL + dotNV - dotNL * dotNV ) ) );
}
vec3 BRDF_Sheen( const in vec3 lightDir, const in vec3 viewDir, const in vec3 normal, vec3 sheenColor, const in float sheenRoughness ) {
	vec3 halfDir = normalize( lightDir + viewDir );
	float dotNL = saturate( dot( normal, lightDir ) );
	float dotNV = saturate( dot( normal, viewDir ) );
	float dotNH = saturate( dot( normal, halfDir ) );
	float D = D_Charlie( sheenRoughness, dotNH );
	float V = V_Neubelt( dotNV, dotNL );
	return sheenColor * ( D * V );
}
#endif
float IBLSheenBRDF( const in vec3 normal, const in vec3 viewDir, const in float roughness ) {
	float dotNV = saturate( dot( normal, viewDir ) );
	float r2 = roughness * roughness;
	float rInv = 1.0 / ( roughness + 0.1 );
	float a = -1.9362 + 1.0678 * roughness + 0.4573 * r2 - 0.8469 * rInv;
	float b = -0.6014 + 0.5538 * roughness - 0.4670 * r2 - 0.1255 * rInv;
	float DG = exp( a * dotNV + b );
	return saturate( DG );
}
vec3 EnvironmentBRDF( const in vec3 normal, const in vec3 viewDir, const in vec3 specularColor, const in float specularF90, const in float roughness ) {
	float dotNV = saturate( dot( normal, viewDir ) );
	vec2 fab = texture2D( dfgLUT, vec2( roughness, dotNV ) ).rg;
	return specularColor * fab.x + specularF90 * fab.y;
}
#ifdef USE_IRIDESCENCE
void computeMultiscatteringIridescence( const in vec2 fab, const in vec3 specularColor, const in float specularF90, const in float iridescence, const in vec3 iridescenceF0, inout vec3 singleScatter, inout vec3 multiScatter ) {
#else
void computeMultiscattering( const in vec2 fab, const in vec3 specularColor, const in float specularF90, inout vec3 singleScatter, inout vec3 multiScatter ) {
#endif
	#ifdef USE_IRIDESCENCE
		vec3 Fr = mix( specularColor, iridescenceF0, iridescence );
	#else
		vec3 Fr = specularColor;
	#endif
	vec3 FssEss = Fr * fab.x + specularF90 * fab.y;
	float Ess = fab.x + fab.y;
	float Ems = 1.0 - Ess;
	vec3 Favg = Fr + ( 1.0 - Fr ) * 0.047619;	vec3 Fms = FssEss * Favg / ( 1.0 - Ems * Favg );
	singleScatter += FssEss;
	multiScatter += Fms * Ems;
}
#if NUM_RECT_AREA_LIGHTS > 0
	void RE_Direct_RectArea_Physical( const in RectAreaLight rectAreaLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
		vec3 normal = geometryNormal;
		vec3 viewDir = geometryViewDir;
		vec3 position = geometryPosition;
		vec3 lightPos = rectAreaLight.position;
		vec3 halfWidth = rectAreaLight.halfWidth;
		vec3 halfHeight = rectAreaLight.halfHeight;
		vec3 lightColor = rectAreaLight.color;
		float roughness = material.roughness;
		vec3 rectCoords[ 4 ];
		rectCoords[ 0 ] = lightPos + halfWidth - halfHeight;		rectCoords[ 1 ] = lightPos - halfWidth - halfHeight;
		rectCoords[ 2 ] = lightPos - halfWidth + halfHeight;
		rectCoords[ 3 ] = lightPos + halfWidth + halfHeight;
		vec2 uv = LTC_Uv( normal, viewDir, roughness );
		vec4 t1 = texture2D( ltc_1, uv );
		vec4 t2 = texture2D( ltc_2, uv );
		mat3 mInv = mat3(
			vec3( t1.x, 0, t1.y ),
			vec3(    0, 1,    0 ),
			vec3( t1.z, 0, t1.w )
		);
		vec3 fresnel = ( material.specularColorBlended * t2.x + ( material.specularF90 - material.specularColorBlended ) * t2.y );
		reflectedLight.directSpecular += lightColor * fresnel * LTC_Evaluate( normal, viewDir, position, mInv, rectCoords );
		reflectedLight.directDiffuse += lightColor * material.diffuseContribution * LTC_Evaluate( normal, viewDir, position, mat3( 1.0 ), rectCoords );
		#ifdef USE_CLEARCOAT
			vec3 Ncc = geometryClearcoatNormal;
			vec2 uvClearcoat = LTC_Uv( Ncc, viewDir, material.clearcoatRoughness );
			vec4 t1Clearcoat = texture2D( ltc_1, uvClearcoat );
			vec4 t2Clearcoat = texture2D( ltc_2, uvClearcoat );
			mat3 mInvClearcoat = mat3(
				vec3( t1Clearcoat.x, 0, t1Clearcoat.y ),
				vec3(             0, 1,             0 ),
				vec3( t1Clearcoat.z, 0, t1Clearcoat.w )
			);
			vec3 fresnelClearcoat = material.clearcoatF0 * t2Clearcoat.x + ( material.clearcoatF90 - material.clearcoatF0 ) * t2Clearcoat.y;
			clearcoatSpecularDirect += lightColor * fresnelClearcoat * LTC_Evaluate( Ncc, viewDir, position, mInvClearcoat, rectCoords );
		#endif
	}
#endif
void RE_Direct_Physical( const in IncidentLight directLight, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
	float dotNL = saturate( dot( geometryNormal, directLight.direction ) );
	vec3 irradiance = dotNL * directLight.color;
	#ifdef USE_CLEARCOAT
		float dotNLcc = saturate( dot( geometryClearcoatNormal, directLight.direction ) );
		vec3 ccIrradiance = dotNLcc * directLight.color;
		clearcoatSpecularDirect += ccIrradiance * BRDF_GGX_Clearcoat( directLight.direction, geometryViewDir, geometryClearcoatNormal, material );
	#endif
	#ifdef USE_SHEEN
 
 		sheenSpecularDirect += irradiance * BRDF_Sheen( directLight.direction, geometryViewDir, geometryNormal, material.sheenColor, material.sheenRoughness );
 
 		float sheenAlbedoV = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
 		float sheenAlbedoL = IBLSheenBRDF( geometryNormal, directLight.direction, material.sheenRoughness );
 
 		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * max( sheenAlbedoV, sheenAlbedoL );
 
 		irradiance *= sheenEnergyComp;
 
 	#endif
	vec3 specularBRDF = BRDF_GGX( directLight.direction, geometryViewDir, geometryNormal, material );
	#ifdef USE_RETROREFLECTION
		vec3 retroViewDir = reflect( - geometryViewDir, geometryNormal );
		vec3 retroSpecularBRDF = BRDF_GGX( directLight.direction, retroViewDir, geometryNormal, material );
		specularBRDF = mix( specularBRDF, retroSpecularBRDF, saturate( material.retroreflectivity ) );
	#endif
	reflectedLight.directSpecular += irradiance * specularBRDF * material.multiScatteringCompensation;
	vec3 halfDir = normalize( directLight.direction + geometryViewDir );
	float dotVH = saturate( dot( geometryViewDir, halfDir ) );
	vec3 F = F_Schlick( material.specularColor, material.specularF90, dotVH );
	#ifdef USE_RETROREFLECTION
		vec3 retroHalfDir = normalize( directLight.direction + retroViewDir );
		float dotRetroVH = saturate( dot( retroViewDir, retroHalfDir ) );
		vec3 retroF = F_Schlick( material.specularColor, material.specularF90, dotRetroVH );
		F = mix( F, retroF, saturate( material.retroreflectivity ) );
	#endif
	#ifdef USE_DIFFUSE_ROUGHNESS
		vec3 diffuseBRDF = BRDF_EON( directLight.direction, geometryViewDir, geometryNormal, material.diffuseColor, material.diffuseRoughness ) * ( 1.0 - material.metalness );
	#else
		vec3 diffuseBRDF = BRDF_Lambert( material.diffuseContribution );
	#endif
	reflectedLight.directDiffuse += irradiance * diffuseBRDF * ( 1.0 - F );
}
void RE_IndirectDiffuse_Physical( const in vec3 irradiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight ) {
	vec3 singleScattering = vec3( 0.0 );
	vec3 multiScattering = vec3( 0.0 );
	#ifdef USE_IRIDESCENCE
		computeMultiscatteringIridescence( material.dfg, material.specularColor, material.specularF90, material.iridescence, material.iridescenceF0Dielectric, singleScattering, multiScattering );
	#else
		computeMultiscattering( material.dfg, material.specularColor, material.specularF90, singleScattering, multiScattering );
	#endif
	#ifdef USE_DIFFUSE_ROUGHNESS
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		vec3 diffuseAlbedo = EON_DirectionalAlbedo( material.diffuseColor, material.diffuseRoughness, dotNV ) * ( 1.0 - material.metalness );
		vec3 diffuse = irradiance * RECIPROCAL_PI * diffuseAlbedo * ( 1.0 - singleScattering - multiScattering );
	#else
		vec3 diffuse = irradiance * BRDF_Lambert( material.diffuseContribution ) * ( 1.0 - singleScattering - multiScattering );
	#endif
	#ifdef USE_SHEEN
		float sheenAlbedo = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
		sheenSpecularIndirect += irradiance * material.sheenColor * sheenAlbedo * RECIPROCAL_PI;
		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * sheenAlbedo;
		diffuse *= sheenEnergyComp;
	#endif
	reflectedLight.indirectDiffuse += diffuse;
}
void RE_IndirectSpecular_Physical( const in vec3 radiance, const in vec3 irradiance, const in vec3 clearcoatRadiance, const in vec3 geometryPosition, const in vec3 geometryNormal, const in vec3 geometryViewDir, const in vec3 geometryClearcoatNormal, const in PhysicalMaterial material, inout ReflectedLight reflectedLight) {
	#ifdef USE_CLEARCOAT
		clearcoatSpecularIndirect += clearcoatRadiance * EnvironmentBRDF( geometryClearcoatNormal, geometryViewDir, material.clearcoatF0, material.clearcoatF90, material.clearcoatRoughness );
	#endif
	#ifdef USE_SHEEN
		sheenSpecularIndirect += irradiance * material.sheenColor * IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness ) * RECIPROCAL_PI;
 	#endif
	vec3 singleScatteringDielectric = vec3( 0.0 );
	vec3 multiScatteringDielectric = vec3( 0.0 );
	vec3 singleScatteringMetallic = vec3( 0.0 );
	vec3 multiScatteringMetallic = vec3( 0.0 );
	#ifdef USE_IRIDESCENCE
		computeMultiscatteringIridescence( material.dfg, material.specularColor, material.specularF90, material.iridescence, material.iridescenceF0Dielectric, singleScatteringDielectric, multiScatteringDielectric );
		computeMultiscatteringIridescence( material.dfg, material.diffuseColor, material.specularF90, material.iridescence, material.iridescenceF0Metallic, singleScatteringMetallic, multiScatteringMetallic );
	#else
		computeMultiscattering( material.dfg, material.specularColor, material.specularF90, singleScatteringDielectric, multiScatteringDielectric );
		computeMultiscattering( material.dfg, material.diffuseColor, material.specularF90, singleScatteringMetallic, multiScatteringMetallic );
	#endif
	vec3 singleScattering = mix( singleScatteringDielectric, singleScatteringMetallic, material.metalness );
	vec3 multiScattering = mix( multiScatteringDielectric, multiScatteringMetallic, material.metalness );
	vec3 totalScatteringDielectric = singleScatteringDielectric + multiScatteringDielectric;
	#ifdef USE_DIFFUSE_ROUGHNESS
		float dotNV = saturate( dot( geometryNormal, geometryViewDir ) );
		vec3 diffuse = EON_DirectionalAlbedo( material.diffuseColor, material.diffuseRoughness, dotNV ) * ( 1.0 - material.metalness ) * ( 1.0 - totalScatteringDielectric );
	#else
		vec3 diffuse = material.diffuseContribution * ( 1.0 - totalScatteringDielectric );
	#endif
	vec3 cosineWeightedIrradiance = irradiance * RECIPROCAL_PI;
	vec3 indirectSpecular = radiance * singleScattering;
	indirectSpecular += multiScattering * cosineWeightedIrradiance;
	vec3 indirectDiffuse = diffuse * cosineWeightedIrradiance;
	#ifdef USE_SHEEN
		float sheenAlbedo = IBLSheenBRDF( geometryNormal, geometryViewDir, material.sheenRoughness );
		float sheenEnergyComp = 1.0 - max3( material.sheenColor ) * sheenAlbedo;
		indirectSpecular *= sheenEnergyComp;
		indirectDiffuse *= sheenEnergyComp;
	#endif
	reflectedLight.indirectSpecular += indirectSpecular;
	reflectedLight.indirectDiffuse += indirectDiffuse;
}
#define RE_Direct				RE_Direct_Physical
#define RE_Direct_RectArea		RE_Direct_RectArea_Physical
#define RE_IndirectDiffuse		RE_IndirectDiffuse_Physical
#define RE_IndirectSpecular		RE_IndirectSpecular_Physical
float computeSpecularOcclusion( const in float dotNV, const in float ambientOcclusion, const in float roughness ) {
	return saturate( pow( dotNV + ambientOcclusion, exp2( - 16.0 * roughness - 1.0 ) ) - 1.0 + ambientOcclusion );
}`,Jw=`
vec3 geometryPosition = - vViewPosition;
vec3 geometryNormal = normal;
vec3 geometryViewDir = ( isOrthographic ) ? vec3( 0, 0, 1 ) : normalize( vViewPosition );
vec3 geometryClearcoatNormal = vec3( 0.0 );
#ifdef USE_CLEARCOAT
	geometryClearcoatNormal = clearcoatNormal;
#endif
#ifdef USE_IRIDESCENCE
	float dotNVi = saturate( dot( normal, geometryViewDir ) );
	if ( material.iridescenceThickness == 0.0 ) {
		material.iridescence = 0.0;
	} else {
		material.iridescence = saturate( material.iridescence );
	}
	if ( material.iridescence > 0.0 ) {
		vec3 iridescenceFresnelDielectric = evalIridescence( 1.0, material.iridescenceIOR, dotNVi, material.iridescenceThickness, material.specularColor );
		vec3 iridescenceFresnelMetallic = evalIridescence( 1.0, material.iridescenceIOR, dotNVi, material.iridescenceThickness, material.diffuseColor );
		material.iridescenceFresnel = mix( iridescenceFresnelDielectric, iridescenceFresnelMetallic, material.metalness );
		material.iridescenceF0Dielectric = Schlick_to_F0( iridescenceFresnelDielectric, 1.0, dotNVi );
		material.iridescenceF0Metallic = Schlick_to_F0( iridescenceFresnelMetallic, 1.0, dotNVi );
	}
#endif
#ifdef STANDARD
	float dotNVms = saturate( dot( geometryNormal, geometryViewDir ) );
	material.dfg = texture2D( dfgLUT, vec2( material.roughness, dotNVms ) ).rg;
	#if ( NUM_SUN_LIGHTS > 0 || NUM_DIR_LIGHTS > 0 || NUM_POINT_LIGHTS > 0 || NUM_SPOT_LIGHTS > 0 )
		float EssMs = material.dfg.x + material.dfg.y;
		material.multiScatteringCompensation = 1.0 + material.specularColorBlended * ( 1.0 / EssMs - 1.0 );
	#endif
#endif
IncidentLight directLight;
#if ( NUM_POINT_LIGHTS > 0 ) && defined( RE_Direct )
	PointLight pointLight;
	#if defined( USE_SHADOWMAP ) && NUM_POINT_LIGHT_SHADOWS > 0
	PointLightShadow pointLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_POINT_LIGHTS; i ++ ) {
		pointLight = pointLights[ i ];
		getPointLightInfo( pointLight, geometryPosition, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_POINT_LIGHT_SHADOWS ) && ( defined( SHADOWMAP_TYPE_PCF ) || defined( SHADOWMAP_TYPE_BASIC ) )
		pointLightShadow = pointLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getPointShadow( pointShadowMap[ i ], pointLightShadow.shadowMapSize, pointLightShadow.shadowIntensity, pointLightShadow.shadowBias, pointLightShadow.shadowRadius, vPointShadowCoord[ i ], pointLightShadow.shadowCameraNear, pointLightShadow.shadowCameraFar ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_SPOT_LIGHTS > 0 ) && defined( RE_Direct )
	SpotLight spotLight;
	vec4 spotColor;
	vec3 spotLightCoord;
	bool inSpotLightMap;
	#if defined( USE_SHADOWMAP ) && NUM_SPOT_LIGHT_SHADOWS > 0
	SpotLightShadow spotLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHTS; i ++ ) {
		spotLight = spotLights[ i ];
		getSpotLightInfo( spotLight, geometryPosition, directLight );
		#if ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS )
		#define SPOT_LIGHT_MAP_INDEX UNROLLED_LOOP_INDEX
		#elif ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
		#define SPOT_LIGHT_MAP_INDEX NUM_SPOT_LIGHT_MAPS
		#else
		#define SPOT_LIGHT_MAP_INDEX ( UNROLLED_LOOP_INDEX - NUM_SPOT_LIGHT_SHADOWS + NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS )
		#endif
		#if ( SPOT_LIGHT_MAP_INDEX < NUM_SPOT_LIGHT_MAPS )
			spotLightCoord = vSpotLightCoord[ i ].xyz / vSpotLightCoord[ i ].w;
			inSpotLightMap = all( lessThan( abs( spotLightCoord * 2. - 1. ), vec3( 1.0 ) ) );
			spotColor = texture2D( spotLightMap[ SPOT_LIGHT_MAP_INDEX ], spotLightCoord.xy );
			directLight.color = inSpotLightMap ? directLight.color * spotColor.rgb : directLight.color;
		#endif
		#undef SPOT_LIGHT_MAP_INDEX
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
		spotLightShadow = spotLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getShadow( spotShadowMap[ i ], spotLightShadow.shadowMapSize, spotLightShadow.shadowIntensity, spotLightShadow.shadowBias, spotLightShadow.shadowRadius, vSpotLightCoord[ i ] ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_SUN_LIGHTS > 0 ) && defined( RE_Direct )
	SunLight sunLight;
	#if defined( USE_SHADOWMAP ) && NUM_SUN_LIGHT_SHADOWS > 0
	SunLightShadow sunLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SUN_LIGHTS; i ++ ) {
		sunLight = sunLights[ i ];
		getSunLightInfo( sunLight, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_SUN_LIGHT_SHADOWS )
		sunLightShadow = sunLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getSunShadow( sunShadowMap[ i ], sunLightShadow, UNROLLED_LOOP_INDEX ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_DIR_LIGHTS > 0 ) && defined( RE_Direct )
	DirectionalLight directionalLight;
	#if defined( USE_SHADOWMAP ) && NUM_DIR_LIGHT_SHADOWS > 0
	DirectionalLightShadow directionalLightShadow;
	#endif
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_DIR_LIGHTS; i ++ ) {
		directionalLight = directionalLights[ i ];
		getDirectionalLightInfo( directionalLight, directLight );
		#if defined( USE_SHADOWMAP ) && ( UNROLLED_LOOP_INDEX < NUM_DIR_LIGHT_SHADOWS )
		directionalLightShadow = directionalLightShadows[ i ];
		directLight.color *= ( directLight.visible && receiveShadow ) ? getShadow( directionalShadowMap[ i ], directionalLightShadow.shadowMapSize, directionalLightShadow.shadowIntensity, directionalLightShadow.shadowBias, directionalLightShadow.shadowRadius, vDirectionalShadowCoord[ i ] ) : 1.0;
		#endif
		RE_Direct( directLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if ( NUM_RECT_AREA_LIGHTS > 0 ) && defined( RE_Direct_RectArea )
	RectAreaLight rectAreaLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_RECT_AREA_LIGHTS; i ++ ) {
		rectAreaLight = rectAreaLights[ i ];
		RE_Direct_RectArea( rectAreaLight, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
	}
	#pragma unroll_loop_end
#endif
#if defined( RE_IndirectDiffuse )
	vec3 iblIrradiance = vec3( 0.0 );
	vec3 irradiance = getAmbientLightIrradiance( ambientLightColor );
	#if defined( USE_LIGHT_PROBES )
		irradiance += getLightProbeIrradiance( lightProbe, geometryNormal );
	#endif
	#if ( NUM_HEMI_LIGHTS > 0 )
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_HEMI_LIGHTS; i ++ ) {
			irradiance += getHemisphereLightIrradiance( hemisphereLights[ i ], geometryNormal );
		}
		#pragma unroll_loop_end
	#endif
	#if NUM_LIGHT_PROBE_GRIDS > 0
		vec3 probeWorldPos = ( ( vec4( geometryPosition, 1.0 ) - viewMatrix[ 3 ] ) * viewMatrix ).xyz;
		vec3 probeWorldNormal = transformNormalByInverseViewMatrix( geometryNormal, viewMatrix );
		int probeGrid = - 1;
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_LIGHT_PROBE_GRIDS; i ++ ) {
			if ( isInsideLightProbeGrid( probeWorldPos, probeWorldNormal, probesMin[ i ], probesMax[ i ], probesResolution[ i ] ) ) probeGrid = UNROLLED_LOOP_INDEX;
		}
		#pragma unroll_loop_end
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_LIGHT_PROBE_GRIDS; i ++ ) {
			if ( probeGrid == UNROLLED_LOOP_INDEX ) irradiance += getLightProbeGridIrradiance( probesSH[ i ], probesMin[ i ], probesMax[ i ], probesResolution[ i ], probeWorldPos, probeWorldNormal );
		}
		#pragma unroll_loop_end
	#endif
#endif
#if defined( RE_IndirectSpecular )
	vec3 radiance = vec3( 0.0 );
	vec3 clearcoatRadiance = vec3( 0.0 );
#endif`,jw=`#if defined( RE_IndirectDiffuse )
	#ifdef USE_LIGHTMAP
		vec4 lightMapTexel = texture2D( lightMap, vLightMapUv );
		vec3 lightMapIrradiance = lightMapTexel.rgb * lightMapIntensity;
		irradiance += lightMapIrradiance;
	#endif
	#if defined( USE_ENVMAP ) && defined( ENVMAP_TYPE_PMREM )
		#if defined( STANDARD ) || defined( LAMBERT ) || defined( PHONG )
			iblIrradiance += getIBLIrradiance( geometryNormal );
		#endif
	#endif
#endif
#if defined( USE_ENVMAP ) && defined( RE_IndirectSpecular )
	#ifdef USE_ANISOTROPY
		vec3 iblRadiance = getIBLAnisotropyRadiance( geometryViewDir, geometryNormal, material.roughness, material.anisotropyB, material.anisotropy );
	#else
		vec3 iblRadiance = getIBLRadiance( geometryViewDir, geometryNormal, material.roughness );
	#endif
	#ifdef USE_RETROREFLECTION
		#ifdef USE_ANISOTROPY
			vec3 retroIBLRadiance = getIBLAnisotropyRetroRadiance( geometryViewDir, geometryNormal, material.roughness, material.anisotropyB, material.anisotropy );
		#else
			vec3 retroIBLRadiance = getIBLRetroRadiance( geometryViewDir, geometryNormal, material.roughness );
		#endif
		iblRadiance = mix( iblRadiance, retroIBLRadiance, saturate( material.retroreflectivity ) );
	#endif
	radiance += iblRadiance;
	#ifdef USE_CLEARCOAT
		clearcoatRadiance += getIBLRadiance( geometryViewDir, geometryClearcoatNormal, material.clearcoatRoughness );
	#endif
#endif`,Qw=`#if defined( RE_IndirectDiffuse )
	#if defined( LAMBERT ) || defined( PHONG )
		irradiance += iblIrradiance;
	#endif
	RE_IndirectDiffuse( irradiance, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
#endif
#if defined( RE_IndirectSpecular )
	RE_IndirectSpecular( radiance, iblIrradiance, clearcoatRadiance, geometryPosition, geometryNormal, geometryViewDir, geometryClearcoatNormal, material, reflectedLight );
#endif`,tM=`#if NUM_LIGHT_PROBE_GRIDS > 0
uniform highp sampler3D probesSH[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesMin[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesMax[ NUM_LIGHT_PROBE_GRIDS ];
uniform vec3 probesResolution[ NUM_LIGHT_PROBE_GRIDS ];
bool isInsideLightProbeGrid( vec3 worldPos, vec3 worldNormal, vec3 probesMin, vec3 probesMax, vec3 probesResolution ) {
	vec3 spacing = ( probesMax - probesMin ) / probesResolution;
	vec3 samplePos = worldPos + worldNormal * spacing * 0.5;
	vec3 margin = spacing * 0.01;
	return all( greaterThanEqual( samplePos, probesMin - margin ) ) && all( lessThanEqual( samplePos, probesMax + margin ) );
}
vec3 getLightProbeGridIrradiance( highp sampler3D probesSH, vec3 probesMin, vec3 probesMax, vec3 probesResolution, vec3 worldPos, vec3 worldNormal ) {
	vec3 res = probesResolution;
	vec3 gridRange = probesMax - probesMin;
	vec3 probeSpacing = gridRange / res;
	vec3 samplePos = worldPos + worldNormal * probeSpacing * 0.5;
	vec3 uvw = clamp( ( samplePos - probesMin ) / gridRange, 0.5 / res, 1.0 - 0.5 / res );
	float nz          = res.z;
	float paddedSlices = nz + 2.0;
	float atlasDepth  = 7.0 * paddedSlices;
	float uvZBase     = uvw.z * nz + 1.0;
	vec4 s0 = texture( probesSH, vec3( uvw.xy, ( uvZBase                       ) / atlasDepth ) );
	vec4 s1 = texture( probesSH, vec3( uvw.xy, ( uvZBase +       paddedSlices   ) / atlasDepth ) );
	vec4 s2 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 2.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s3 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 3.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s4 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 4.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s5 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 5.0 * paddedSlices   ) / atlasDepth ) );
	vec4 s6 = texture( probesSH, vec3( uvw.xy, ( uvZBase + 6.0 * paddedSlices   ) / atlasDepth ) );
	vec3 c0 = s0.xyz;
	vec3 c1 = vec3( s0.w, s1.xy );
	vec3 c2 = vec3( s1.zw, s2.x );
	vec3 c3 = s2.yzw;
	vec3 c4 = s3.xyz;
	vec3 c5 = vec3( s3.w, s4.xy );
	vec3 c6 = vec3( s4.zw, s5.x );
	vec3 c7 = s5.yzw;
	vec3 c8 = s6.xyz;
	float x = worldNormal.x, y = worldNormal.y, z = worldNormal.z;
	vec3 result = c0 * 0.886227;
	result += c1 * 2.0 * 0.511664 * y;
	result += c2 * 2.0 * 0.511664 * z;
	result += c3 * 2.0 * 0.511664 * x;
	result += c4 * 2.0 * 0.429043 * x * y;
	result += c5 * 2.0 * 0.429043 * y * z;
	result += c6 * ( 0.743125 * z * z - 0.247708 );
	result += c7 * 2.0 * 0.429043 * x * z;
	result += c8 * 0.429043 * ( x * x - y * y );
	return max( result, vec3( 0.0 ) );
}
#endif`,eM=`#if defined( USE_LOGARITHMIC_DEPTH_BUFFER )
	gl_FragDepth = vIsPerspective == 0.0 ? gl_FragCoord.z : log2( vFragDepth ) * logDepthBufFC * 0.5;
#endif`,iM=`#if defined( USE_LOGARITHMIC_DEPTH_BUFFER )
	uniform float logDepthBufFC;
	varying float vFragDepth;
	varying float vIsPerspective;
#endif`,nM=`#ifdef USE_LOGARITHMIC_DEPTH_BUFFER
	varying float vFragDepth;
	varying float vIsPerspective;
#endif`,sM=`#ifdef USE_LOGARITHMIC_DEPTH_BUFFER
	vFragDepth = 1.0 + gl_Position.w;
	vIsPerspective = float( isPerspectiveMatrix( projectionMatrix ) );
#endif`,rM=`#ifdef USE_MAP
	vec4 sampledDiffuseColor = texture2D( map, vMapUv );
	#ifdef DECODE_VIDEO_TEXTURE
		sampledDiffuseColor = sRGBTransferEOTF( sampledDiffuseColor );
	#endif
	diffuseColor *= sampledDiffuseColor;
#endif`,oM=`#ifdef USE_MAP
	uniform sampler2D map;
#endif`,aM=`#if defined( USE_MAP ) || defined( USE_ALPHAMAP )
	#if defined( USE_POINTS_UV )
		vec2 uv = vUv;
	#else
		vec2 uv = ( uvTransform * vec3( gl_PointCoord.x, 1.0 - gl_PointCoord.y, 1 ) ).xy;
	#endif
#endif
#ifdef USE_MAP
	diffuseColor *= texture2D( map, uv );
#endif
#ifdef USE_ALPHAMAP
	diffuseColor.a *= texture2D( alphaMap, uv ).g;
#endif`,lM=`#if defined( USE_POINTS_UV )
	varying vec2 vUv;
#else
	#if defined( USE_MAP ) || defined( USE_ALPHAMAP )
		uniform mat3 uvTransform;
	#endif
#endif
#ifdef USE_MAP
	uniform sampler2D map;
#endif
#ifdef USE_ALPHAMAP
	uniform sampler2D alphaMap;
#endif`,cM=`float metalnessFactor = metalness;
#ifdef USE_METALNESSMAP
	vec4 texelMetalness = texture2D( metalnessMap, vMetalnessMapUv );
	metalnessFactor *= texelMetalness.b;
#endif`,hM=`#ifdef USE_METALNESSMAP
	uniform sampler2D metalnessMap;
#endif`,uM=`#ifdef USE_INSTANCING_MORPH
	float morphTargetInfluences[ MORPHTARGETS_COUNT ];
	float morphTargetBaseInfluence = texelFetch( morphTexture, ivec2( 0, gl_InstanceID ), 0 ).r;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		morphTargetInfluences[i] =  texelFetch( morphTexture, ivec2( i + 1, gl_InstanceID ), 0 ).r;
	}
#endif`,fM=`#if defined( USE_MORPHCOLORS )
	#if defined( USE_COLOR_ALPHA )
		vColor *= morphTargetBaseInfluence;
	#elif defined( USE_COLOR )
		vColor.rgb *= morphTargetBaseInfluence;
	#endif
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		#if defined( USE_COLOR_ALPHA )
			if ( morphTargetInfluences[ i ] != 0.0 ) vColor += getMorph( gl_VertexID, i, 2 ) * morphTargetInfluences[ i ];
		#elif defined( USE_COLOR )
			if ( morphTargetInfluences[ i ] != 0.0 ) vColor.rgb += getMorph( gl_VertexID, i, 2 ).rgb * morphTargetInfluences[ i ];
		#endif
	}
#endif`,dM=`#ifdef USE_MORPHNORMALS
	objectNormal *= morphTargetBaseInfluence;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		if ( morphTargetInfluences[ i ] != 0.0 ) objectNormal += getMorph( gl_VertexID, i, 1 ).xyz * morphTargetInfluences[ i ];
	}
#endif`,pM=`#ifdef USE_MORPHTARGETS
	#ifndef USE_INSTANCING_MORPH
		uniform float morphTargetBaseInfluence;
		uniform float morphTargetInfluences[ MORPHTARGETS_COUNT ];
	#endif
	uniform sampler2DArray morphTargetsTexture;
	uniform ivec2 morphTargetsTextureSize;
	vec4 getMorph( const in int vertexIndex, const in int morphTargetIndex, const in int offset ) {
		int texelIndex = vertexIndex * MORPHTARGETS_TEXTURE_STRIDE + offset;
		int y = texelIndex / morphTargetsTextureSize.x;
		int x = texelIndex - y * morphTargetsTextureSize.x;
		ivec3 morphUV = ivec3( x, y, morphTargetIndex );
		return texelFetch( morphTargetsTexture, morphUV, 0 );
	}
#endif`,mM=`#ifdef USE_MORPHTARGETS
	transformed *= morphTargetBaseInfluence;
	for ( int i = 0; i < MORPHTARGETS_COUNT; i ++ ) {
		if ( morphTargetInfluences[ i ] != 0.0 ) transformed += getMorph( gl_VertexID, i, 0 ).xyz * morphTargetInfluences[ i ];
	}
#endif`,gM=`float faceDirection = gl_FrontFacing ? 1.0 : - 1.0;
#ifdef FLAT_SHADED
	vec3 fdx = dFdx( vViewPosition );
	vec3 fdy = dFdy( vViewPosition );
	vec3 normal = normalize( cross( fdx, fdy ) );
#else
	vec3 normal = normalize( vNormal );
	#ifdef DOUBLE_SIDED
		normal *= faceDirection;
	#endif
#endif
#if defined( USE_NORMALMAP_TANGENTSPACE ) || defined( USE_CLEARCOAT_NORMALMAP ) || defined( USE_ANISOTROPY )
	#ifdef USE_TANGENT
		mat3 tbn = mat3( normalize( vTangent ), normalize( vBitangent ), normal );
	#else
		mat3 tbn = getTangentFrame( - vViewPosition, normal,
		#if defined( USE_NORMALMAP )
			vNormalMapUv
		#elif defined( USE_CLEARCOAT_NORMALMAP )
			vClearcoatNormalMapUv
		#else
			vUv
		#endif
		);
	#endif
	#ifdef DOUBLE_SIDED
		tbn[0] *= faceDirection;
		tbn[1] *= faceDirection;
	#endif
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	#ifdef USE_TANGENT
		mat3 tbn2 = mat3( normalize( vTangent ), normalize( vBitangent ), normal );
	#else
		mat3 tbn2 = getTangentFrame( - vViewPosition, normal, vClearcoatNormalMapUv );
	#endif
	#ifdef DOUBLE_SIDED
		tbn2[0] *= faceDirection;
		tbn2[1] *= faceDirection;
	#endif
#endif
vec3 nonPerturbedNormal = normal;`,_M=`#ifdef USE_NORMALMAP_OBJECTSPACE
	normal = texture2D( normalMap, vNormalMapUv ).xyz * 2.0 - 1.0;
	#ifdef FLIP_SIDED
		normal = - normal;
	#endif
	#ifdef DOUBLE_SIDED
		normal = normal * faceDirection;
	#endif
	normal = normalize( normalMatrix * normal );
#elif defined( USE_NORMALMAP_TANGENTSPACE )
	vec3 mapN = texture2D( normalMap, vNormalMapUv ).xyz * 2.0 - 1.0;
	#if defined( USE_PACKED_NORMALMAP )
		mapN = vec3( mapN.xy, sqrt( saturate( 1.0 - dot( mapN.xy, mapN.xy ) ) ) );
	#endif
	mapN.xy *= normalScale;
	normal = normalize( tbn * mapN );
#elif defined( USE_BUMPMAP )
	normal = perturbNormalArb( - vViewPosition, normal, dHdxy_fwd(), faceDirection );
#endif`,yM=`#ifndef FLAT_SHADED
	varying vec3 vNormal;
	#ifdef USE_TANGENT
		varying vec3 vTangent;
		varying vec3 vBitangent;
	#endif
#endif`,xM=`#ifndef FLAT_SHADED
	varying vec3 vNormal;
	#ifdef USE_TANGENT
		varying vec3 vTangent;
		varying vec3 vBitangent;
	#endif
#endif`,vM=`#ifndef FLAT_SHADED
	vNormal = normalize( transformedNormal );
	#ifdef USE_TANGENT
		vTangent = normalize( transformedTangent );
		vBitangent = normalize( cross( vNormal, vTangent ) * tangent.w );
		#ifdef FLIP_SIDED
			vBitangent = - vBitangent;
		#endif
	#endif
#endif`,SM=`#ifdef USE_NORMALMAP
	uniform sampler2D normalMap;
	uniform vec2 normalScale;
#endif
#ifdef USE_NORMALMAP_OBJECTSPACE
	uniform mat3 normalMatrix;
#endif
#if ! defined ( USE_TANGENT ) && ( defined ( USE_NORMALMAP_TANGENTSPACE ) || defined ( USE_CLEARCOAT_NORMALMAP ) || defined( USE_ANISOTROPY ) )
	mat3 getTangentFrame( vec3 eye_pos, vec3 surf_norm, vec2 uv ) {
		vec3 q0 = dFdx( eye_pos.xyz );
		vec3 q1 = dFdy( eye_pos.xyz );
		vec2 st0 = dFdx( uv.st );
		vec2 st1 = dFdy( uv.st );
		vec3 N = surf_norm;
		vec3 q1perp = cross( q1, N );
		vec3 q0perp = cross( N, q0 );
		vec3 T = q1perp * st0.x + q0perp * st1.x;
		vec3 B = q1perp * st0.y + q0perp * st1.y;
		float det = max( dot( T, T ), dot( B, B ) );
		float scale = ( det == 0.0 ) ? 0.0 : inversesqrt( det );
		return mat3( T * scale, B * scale, N );
	}
#endif`,wM=`#ifdef USE_CLEARCOAT
	vec3 clearcoatNormal = nonPerturbedNormal;
#endif`,MM=`#ifdef USE_CLEARCOAT_NORMALMAP
	vec3 clearcoatMapN = texture2D( clearcoatNormalMap, vClearcoatNormalMapUv ).xyz * 2.0 - 1.0;
	clearcoatMapN.xy *= clearcoatNormalScale;
	clearcoatNormal = normalize( tbn2 * clearcoatMapN );
#endif`,bM=`#ifdef USE_CLEARCOATMAP
	uniform sampler2D clearcoatMap;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	uniform sampler2D clearcoatNormalMap;
	uniform vec2 clearcoatNormalScale;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	uniform sampler2D clearcoatRoughnessMap;
#endif`,TM=`#ifdef USE_IRIDESCENCEMAP
	uniform sampler2D iridescenceMap;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	uniform sampler2D iridescenceThicknessMap;
#endif`,EM=`#ifdef OPAQUE
diffuseColor.a = 1.0;
#endif
#ifdef USE_TRANSMISSION
diffuseColor.a *= material.transmissionAlpha;
#endif
gl_FragColor = vec4( outgoingLight, diffuseColor.a );`,AM=`vec3 packNormalToRGB( const in vec3 normal ) {
	return normalize( normal ) * 0.5 + 0.5;
}
vec3 unpackRGBToNormal( const in vec3 rgb ) {
	return 2.0 * rgb.xyz - 1.0;
}
const float PackUpscale = 256. / 255.;const float UnpackDownscale = 255. / 256.;const float ShiftRight8 = 1. / 256.;
const float Inv255 = 1. / 255.;
const vec4 PackFactors = vec4( 1.0, 256.0, 256.0 * 256.0, 256.0 * 256.0 * 256.0 );
const vec2 UnpackFactors2 = vec2( UnpackDownscale, 1.0 / PackFactors.g );
const vec3 UnpackFactors3 = vec3( UnpackDownscale / PackFactors.rg, 1.0 / PackFactors.b );
const vec4 UnpackFactors4 = vec4( UnpackDownscale / PackFactors.rgb, 1.0 / PackFactors.a );
vec4 packDepthToRGBA( const in float v ) {
	if( v <= 0.0 )
		return vec4( 0., 0., 0., 0. );
	if( v >= 1.0 )
		return vec4( 1., 1., 1., 1. );
	float vuf;
	float af = modf( v * PackFactors.a, vuf );
	float bf = modf( vuf * ShiftRight8, vuf );
	float gf = modf( vuf * ShiftRight8, vuf );
	return vec4( vuf * Inv255, gf * PackUpscale, bf * PackUpscale, af );
}
vec3 packDepthToRGB( const in float v ) {
	if( v <= 0.0 )
		return vec3( 0., 0., 0. );
	if( v >= 1.0 )
		return vec3( 1., 1., 1. );
	float vuf;
	float bf = modf( v * PackFactors.b, vuf );
	float gf = modf( vuf * ShiftRight8, vuf );
	return vec3( vuf * Inv255, gf * PackUpscale, bf );
}
vec2 packDepthToRG( const in float v ) {
	if( v <= 0.0 )
		return vec2( 0., 0. );
	if( v >= 1.0 )
		return vec2( 1., 1. );
	float vuf;
	float gf = modf( v * 256., vuf );
	return vec2( vuf * Inv255, gf );
}
float unpackRGBAToDepth( const in vec4 v ) {
	return dot( v, UnpackFactors4 );
}
float unpackRGBToDepth( const in vec3 v ) {
	return dot( v, UnpackFactors3 );
}
float unpackRGToDepth( const in vec2 v ) {
	return v.r * UnpackFactors2.r + v.g * UnpackFactors2.g;
}
vec4 pack2HalfToRGBA( const in vec2 v ) {
	vec4 r = vec4( v.x, fract( v.x * 255.0 ), v.y, fract( v.y * 255.0 ) );
	return vec4( r.x - r.y / 255.0, r.y, r.z - r.w / 255.0, r.w );
}
vec2 unpackRGBATo2Half( const in vec4 v ) {
	return vec2( v.x + ( v.y / 255.0 ), v.z + ( v.w / 255.0 ) );
}
float viewZToOrthographicDepth( const in float viewZ, const in float near, const in float far ) {
	return ( viewZ + near ) / ( near - far );
}
float orthographicDepthToViewZ( const in float depth, const in float near, const in float far ) {
	#ifdef USE_REVERSED_DEPTH_BUFFER
	
		return depth * ( far - near ) - far;
	#else
		return depth * ( near - far ) - near;
	#endif
}
float viewZToPerspectiveDepth( const in float viewZ, const in float near, const in float far ) {
	return ( ( near + viewZ ) * far ) / ( ( far - near ) * viewZ );
}
float perspectiveDepthToViewZ( const in float depth, const in float near, const in float far ) {
	
	#ifdef USE_REVERSED_DEPTH_BUFFER
		return ( near * far ) / ( ( near - far ) * depth - near );
	#else
		return ( near * far ) / ( ( far - near ) * depth - far );
	#endif
}`,RM=`#ifdef PREMULTIPLIED_ALPHA
	gl_FragColor.rgb *= gl_FragColor.a;
#endif`,CM=`vec4 mvPosition = vec4( transformed, 1.0 );
#ifdef USE_BATCHING
	mvPosition = batchingMatrix * mvPosition;
#endif
#ifdef USE_INSTANCING
	mvPosition = instanceMatrix * mvPosition;
#endif
mvPosition = modelViewMatrix * mvPosition;
gl_Position = projectionMatrix * mvPosition;`,PM=`#ifdef DITHERING
	gl_FragColor.rgb = dithering( gl_FragColor.rgb );
#endif`,IM=`#ifdef DITHERING
	vec3 dithering( vec3 color ) {
		float grid_position = rand( gl_FragCoord.xy );
		vec3 dither_shift_RGB = vec3( 0.25 / 255.0, -0.25 / 255.0, 0.25 / 255.0 );
		dither_shift_RGB = mix( 2.0 * dither_shift_RGB, -2.0 * dither_shift_RGB, grid_position );
		return color + dither_shift_RGB;
	}
#endif`,LM=`float roughnessFactor = roughness;
#ifdef USE_ROUGHNESSMAP
	vec4 texelRoughness = texture2D( roughnessMap, vRoughnessMapUv );
	roughnessFactor *= texelRoughness.g;
#endif`,NM=`#ifdef USE_ROUGHNESSMAP
	uniform sampler2D roughnessMap;
#endif`,DM=`#if NUM_SPOT_LIGHT_COORDS > 0
	varying vec4 vSpotLightCoord[ NUM_SPOT_LIGHT_COORDS ];
#endif
#if NUM_SPOT_LIGHT_MAPS > 0
	uniform sampler2D spotLightMap[ NUM_SPOT_LIGHT_MAPS ];
#endif
#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
		#define SUN_LIGHT_CASCADES 2
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow sunShadowMap[ NUM_SUN_LIGHT_SHADOWS ];
		#else
			uniform sampler2D sunShadowMap[ NUM_SUN_LIGHT_SHADOWS ];
		#endif
		uniform mat4 sunShadowMatrix[ NUM_SUN_LIGHT_SHADOWS * SUN_LIGHT_CASCADES ];
		uniform vec4 sunShadowCascade[ NUM_SUN_LIGHT_SHADOWS * SUN_LIGHT_CASCADES ];
		varying vec4 vSunShadowWorldPosition;
		varying vec3 vSunShadowWorldNormal;
		struct SunLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SunLightShadow sunLightShadows[ NUM_SUN_LIGHT_SHADOWS ];
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow directionalShadowMap[ NUM_DIR_LIGHT_SHADOWS ];
		#else
			uniform sampler2D directionalShadowMap[ NUM_DIR_LIGHT_SHADOWS ];
		#endif
		varying vec4 vDirectionalShadowCoord[ NUM_DIR_LIGHT_SHADOWS ];
		struct DirectionalLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform DirectionalLightShadow directionalLightShadows[ NUM_DIR_LIGHT_SHADOWS ];
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform sampler2DShadow spotShadowMap[ NUM_SPOT_LIGHT_SHADOWS ];
		#else
			uniform sampler2D spotShadowMap[ NUM_SPOT_LIGHT_SHADOWS ];
		#endif
		struct SpotLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SpotLightShadow spotLightShadows[ NUM_SPOT_LIGHT_SHADOWS ];
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		#if defined( SHADOWMAP_TYPE_PCF )
			uniform samplerCubeShadow pointShadowMap[ NUM_POINT_LIGHT_SHADOWS ];
		#elif defined( SHADOWMAP_TYPE_BASIC )
			uniform samplerCube pointShadowMap[ NUM_POINT_LIGHT_SHADOWS ];
		#endif
		varying vec4 vPointShadowCoord[ NUM_POINT_LIGHT_SHADOWS ];
		struct PointLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
			float shadowCameraNear;
			float shadowCameraFar;
		};
		uniform PointLightShadow pointLightShadows[ NUM_POINT_LIGHT_SHADOWS ];
	#endif
	#if defined( SHADOWMAP_TYPE_PCF )
		float interleavedGradientNoise( vec2 position ) {
			return fract( 52.9829189 * fract( dot( position, vec2( 0.06711056, 0.00583715 ) ) ) );
		}
		vec2 vogelDiskSample( int sampleIndex, int samplesCount, float phi ) {
			const float goldenAngle = 2.399963229728653;
			float r = sqrt( ( float( sampleIndex ) + 0.5 ) / float( samplesCount ) );
			float theta = float( sampleIndex ) * goldenAngle + phi;
			return vec2( cos( theta ), sin( theta ) ) * r;
		}
	#endif
	#if defined( SHADOWMAP_TYPE_PCF )
		float getShadow( sampler2DShadow shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				vec2 texelSize = vec2( 1.0 ) / shadowMapSize;
				vec2 radius = shadowRadius * texelSize;
				float phi = interleavedGradientNoise( gl_FragCoord.xy ) * PI2;
				shadow = (
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 0, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 1, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 2, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 3, 5, phi ) * radius, shadowCoord.z ) ) +
					texture( shadowMap, vec3( shadowCoord.xy + vogelDiskSample( 4, 5, phi ) * radius, shadowCoord.z ) )
				) * 0.2;
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#elif defined( SHADOWMAP_TYPE_VSM )
		float getShadow( sampler2D shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				vec2 distribution = texture2D( shadowMap, shadowCoord.xy ).rg;
				float mean = distribution.x;
				float variance = distribution.y * distribution.y;
				#ifdef USE_REVERSED_DEPTH_BUFFER
					float hard_shadow = step( mean, shadowCoord.z );
				#else
					float hard_shadow = step( shadowCoord.z, mean );
				#endif
				
				if ( hard_shadow == 1.0 ) {
					shadow = 1.0;
				} else {
					variance = max( variance, 0.0000001 );
					float d = shadowCoord.z - mean;
					float p_max = variance / ( variance + d * d );
					p_max = clamp( ( p_max - 0.3 ) / 0.65, 0.0, 1.0 );
					shadow = max( hard_shadow, p_max );
				}
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#else
		float getShadow( sampler2D shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord ) {
			float shadow = 1.0;
			shadowCoord.xyz /= shadowCoord.w;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				shadowCoord.z -= shadowBias;
			#else
				shadowCoord.z += shadowBias;
			#endif
			bool inFrustum = shadowCoord.x >= 0.0 && shadowCoord.x <= 1.0 && shadowCoord.y >= 0.0 && shadowCoord.y <= 1.0;
			bool frustumTest = inFrustum && shadowCoord.z <= 1.0;
			if ( frustumTest ) {
				float depth = texture2D( shadowMap, shadowCoord.xy ).r;
				#ifdef USE_REVERSED_DEPTH_BUFFER
					shadow = step( depth, shadowCoord.z );
				#else
					shadow = step( shadowCoord.z, depth );
				#endif
			}
			return mix( 1.0, shadow, shadowIntensity );
		}
	#endif
	#if NUM_SUN_LIGHT_SHADOWS > 0
		float getSunShadow(
			#if defined( SHADOWMAP_TYPE_PCF )
				sampler2DShadow shadowMap,
			#else
				sampler2D shadowMap,
			#endif
			SunLightShadow sunLightShadow,
			int shadowIndex
		) {
			vec4 shadowWorldPosition = vec4( vSunShadowWorldPosition.xyz + vSunShadowWorldNormal * sunLightShadow.shadowNormalBias, 1.0 );
			float viewDepth = vSunShadowWorldPosition.w;
			int cascadeOffset = shadowIndex * SUN_LIGHT_CASCADES;
			float shadow = 1.0;
			for ( int i = SUN_LIGHT_CASCADES - 1; i >= 0; i -- ) {
				vec4 cascade = sunShadowCascade[ cascadeOffset + i ];
				if ( viewDepth >= cascade.x && viewDepth < cascade.y ) {
					float cascadeShadow = getShadow(
						shadowMap,
						sunLightShadow.shadowMapSize,
						sunLightShadow.shadowIntensity,
						sunLightShadow.shadowBias,
						sunLightShadow.shadowRadius,
						sunShadowMatrix[ cascadeOffset + i ] * shadowWorldPosition
					);
					shadow = mix( cascadeShadow, shadow, smoothstep( cascade.z, cascade.y, viewDepth ) );
				}
			}
			return shadow;
		}
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
	#if defined( SHADOWMAP_TYPE_PCF )
	float getPointShadow( samplerCubeShadow shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord, float shadowCameraNear, float shadowCameraFar ) {
		float shadow = 1.0;
		vec3 lightToPosition = shadowCoord.xyz;
		vec3 bd3D = normalize( lightToPosition );
		vec3 absVec = abs( lightToPosition );
		float viewSpaceZ = max( max( absVec.x, absVec.y ), absVec.z );
		if ( viewSpaceZ - shadowCameraFar <= 0.0 && viewSpaceZ - shadowCameraNear >= 0.0 ) {
			float lightDistance = length( lightToPosition );
			float depthRange = shadowCameraFar - shadowCameraNear;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				float depthA = - shadowCameraNear / depthRange - shadowBias;
				float depthB = shadowCameraNear * shadowCameraFar / ( depthRange * lightDistance );
			#else
				float depthA = shadowCameraFar / depthRange + shadowBias;
				float depthB = - shadowCameraNear * shadowCameraFar / ( depthRange * lightDistance );
			#endif
			float texelSize = shadowRadius / shadowMapSize.x;
			vec3 absDir = abs( bd3D );
			vec3 tangent = absDir.x > absDir.z ? vec3( 0.0, 1.0, 0.0 ) : vec3( 1.0, 0.0, 0.0 );
			tangent = normalize( cross( bd3D, tangent ) );
			vec3 bitangent = cross( bd3D, tangent );
			float phi = interleavedGradientNoise( gl_FragCoord.xy ) * PI2;
			shadow = 0.0;
			for ( int i = 0; i < 5; i ++ ) {
				vec2 offset = vogelDiskSample( i, 5, phi );
				vec3 direction = bd3D + ( tangent * offset.x + bitangent * offset.y ) * texelSize;
				vec3 absDirection = abs( direction );
				float dp = depthA + depthB / max( max( absDirection.x, absDirection.y ), absDirection.z );
				shadow += texture( shadowMap, vec4( direction, dp ) );
			}
			shadow *= 0.2;
		}
		return mix( 1.0, shadow, shadowIntensity );
	}
	#elif defined( SHADOWMAP_TYPE_BASIC )
	float getPointShadow( samplerCube shadowMap, vec2 shadowMapSize, float shadowIntensity, float shadowBias, float shadowRadius, vec4 shadowCoord, float shadowCameraNear, float shadowCameraFar ) {
		float shadow = 1.0;
		vec3 lightToPosition = shadowCoord.xyz;
		vec3 absVec = abs( lightToPosition );
		float viewSpaceZ = max( max( absVec.x, absVec.y ), absVec.z );
		if ( viewSpaceZ - shadowCameraFar <= 0.0 && viewSpaceZ - shadowCameraNear >= 0.0 ) {
			float dp = ( shadowCameraFar * ( viewSpaceZ - shadowCameraNear ) ) / ( viewSpaceZ * ( shadowCameraFar - shadowCameraNear ) );
			dp += shadowBias;
			vec3 bd3D = normalize( lightToPosition );
			float depth = textureCube( shadowMap, bd3D ).r;
			#ifdef USE_REVERSED_DEPTH_BUFFER
				depth = 1.0 - depth;
			#endif
			shadow = step( dp, depth );
		}
		return mix( 1.0, shadow, shadowIntensity );
	}
	#endif
	#endif
#endif`,OM=`#if NUM_SPOT_LIGHT_COORDS > 0
	uniform mat4 spotLightMatrix[ NUM_SPOT_LIGHT_COORDS ];
	varying vec4 vSpotLightCoord[ NUM_SPOT_LIGHT_COORDS ];
#endif
#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
		varying vec4 vSunShadowWorldPosition;
		varying vec3 vSunShadowWorldNormal;
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		uniform mat4 directionalShadowMatrix[ NUM_DIR_LIGHT_SHADOWS ];
		varying vec4 vDirectionalShadowCoord[ NUM_DIR_LIGHT_SHADOWS ];
		struct DirectionalLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform DirectionalLightShadow directionalLightShadows[ NUM_DIR_LIGHT_SHADOWS ];
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
		struct SpotLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
		};
		uniform SpotLightShadow spotLightShadows[ NUM_SPOT_LIGHT_SHADOWS ];
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		uniform mat4 pointShadowMatrix[ NUM_POINT_LIGHT_SHADOWS ];
		varying vec4 vPointShadowCoord[ NUM_POINT_LIGHT_SHADOWS ];
		struct PointLightShadow {
			float shadowIntensity;
			float shadowBias;
			float shadowNormalBias;
			float shadowRadius;
			vec2 shadowMapSize;
			float shadowCameraNear;
			float shadowCameraFar;
		};
		uniform PointLightShadow pointLightShadows[ NUM_POINT_LIGHT_SHADOWS ];
	#endif
#endif`,UM=`#if ( defined( USE_SHADOWMAP ) && ( NUM_DIR_LIGHT_SHADOWS > 0 || NUM_SUN_LIGHT_SHADOWS > 0 || NUM_POINT_LIGHT_SHADOWS > 0 ) ) || ( NUM_SPOT_LIGHT_COORDS > 0 )
	#ifdef HAS_NORMAL
		vec3 shadowWorldNormal = transformNormalByInverseViewMatrix( transformedNormal, viewMatrix );
	#else
		vec3 shadowWorldNormal = vec3( 0.0 );
	#endif
	vec4 shadowWorldPosition;
#endif
#if defined( USE_SHADOWMAP )
	#if NUM_SUN_LIGHT_SHADOWS > 0
		vSunShadowWorldPosition = vec4( worldPosition.xyz, - mvPosition.z );
		vSunShadowWorldNormal = shadowWorldNormal;
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_DIR_LIGHT_SHADOWS; i ++ ) {
			shadowWorldPosition = worldPosition + vec4( shadowWorldNormal * directionalLightShadows[ i ].shadowNormalBias, 0 );
			vDirectionalShadowCoord[ i ] = directionalShadowMatrix[ i ] * shadowWorldPosition;
		}
		#pragma unroll_loop_end
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0
		#pragma unroll_loop_start
		for ( int i = 0; i < NUM_POINT_LIGHT_SHADOWS; i ++ ) {
			shadowWorldPosition = worldPosition + vec4( shadowWorldNormal * pointLightShadows[ i ].shadowNormalBias, 0 );
			vPointShadowCoord[ i ] = pointShadowMatrix[ i ] * shadowWorldPosition;
		}
		#pragma unroll_loop_end
	#endif
#endif
#if NUM_SPOT_LIGHT_COORDS > 0
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHT_COORDS; i ++ ) {
		shadowWorldPosition = worldPosition;
		#if ( defined( USE_SHADOWMAP ) && UNROLLED_LOOP_INDEX < NUM_SPOT_LIGHT_SHADOWS )
			shadowWorldPosition.xyz += shadowWorldNormal * spotLightShadows[ i ].shadowNormalBias;
		#endif
		vSpotLightCoord[ i ] = spotLightMatrix[ i ] * shadowWorldPosition;
	}
	#pragma unroll_loop_end
#endif`,FM=`float getShadowMask() {
	float shadow = 1.0;
	#ifdef USE_SHADOWMAP
	#if NUM_SUN_LIGHT_SHADOWS > 0
	SunLightShadow sunLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SUN_LIGHT_SHADOWS; i ++ ) {
		sunLight = sunLightShadows[ i ];
		shadow *= receiveShadow ? getSunShadow( sunShadowMap[ i ], sunLight, UNROLLED_LOOP_INDEX ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_DIR_LIGHT_SHADOWS > 0
	DirectionalLightShadow directionalLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_DIR_LIGHT_SHADOWS; i ++ ) {
		directionalLight = directionalLightShadows[ i ];
		shadow *= receiveShadow ? getShadow( directionalShadowMap[ i ], directionalLight.shadowMapSize, directionalLight.shadowIntensity, directionalLight.shadowBias, directionalLight.shadowRadius, vDirectionalShadowCoord[ i ] ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_SPOT_LIGHT_SHADOWS > 0
	SpotLightShadow spotLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_SPOT_LIGHT_SHADOWS; i ++ ) {
		spotLight = spotLightShadows[ i ];
		shadow *= receiveShadow ? getShadow( spotShadowMap[ i ], spotLight.shadowMapSize, spotLight.shadowIntensity, spotLight.shadowBias, spotLight.shadowRadius, vSpotLightCoord[ i ] ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#if NUM_POINT_LIGHT_SHADOWS > 0 && ( defined( SHADOWMAP_TYPE_PCF ) || defined( SHADOWMAP_TYPE_BASIC ) )
	PointLightShadow pointLight;
	#pragma unroll_loop_start
	for ( int i = 0; i < NUM_POINT_LIGHT_SHADOWS; i ++ ) {
		pointLight = pointLightShadows[ i ];
		shadow *= receiveShadow ? getPointShadow( pointShadowMap[ i ], pointLight.shadowMapSize, pointLight.shadowIntensity, pointLight.shadowBias, pointLight.shadowRadius, vPointShadowCoord[ i ], pointLight.shadowCameraNear, pointLight.shadowCameraFar ) : 1.0;
	}
	#pragma unroll_loop_end
	#endif
	#endif
	return shadow;
}`,BM=`#ifdef USE_SKINNING
	mat4 boneMatX = getBoneMatrix( skinIndex.x );
	mat4 boneMatY = getBoneMatrix( skinIndex.y );
	mat4 boneMatZ = getBoneMatrix( skinIndex.z );
	mat4 boneMatW = getBoneMatrix( skinIndex.w );
#endif`,kM=`#ifdef USE_SKINNING
	uniform mat4 bindMatrix;
	uniform mat4 bindMatrixInverse;
	uniform highp sampler2D boneTexture;
	mat4 getBoneMatrix( const in float i ) {
		int size = textureSize( boneTexture, 0 ).x;
		int j = int( i ) * 4;
		int x = j % size;
		int y = j / size;
		vec4 v1 = texelFetch( boneTexture, ivec2( x, y ), 0 );
		vec4 v2 = texelFetch( boneTexture, ivec2( x + 1, y ), 0 );
		vec4 v3 = texelFetch( boneTexture, ivec2( x + 2, y ), 0 );
		vec4 v4 = texelFetch( boneTexture, ivec2( x + 3, y ), 0 );
		return mat4( v1, v2, v3, v4 );
	}
#endif`,zM=`#ifdef USE_SKINNING
	vec4 skinVertex = bindMatrix * vec4( transformed, 1.0 );
	vec4 skinned = vec4( 0.0 );
	skinned += boneMatX * skinVertex * skinWeight.x;
	skinned += boneMatY * skinVertex * skinWeight.y;
	skinned += boneMatZ * skinVertex * skinWeight.z;
	skinned += boneMatW * skinVertex * skinWeight.w;
	transformed = ( bindMatrixInverse * skinned ).xyz;
#endif`,HM=`#ifdef USE_SKINNING
	mat4 skinMatrix = mat4( 0.0 );
	skinMatrix += skinWeight.x * boneMatX;
	skinMatrix += skinWeight.y * boneMatY;
	skinMatrix += skinWeight.z * boneMatZ;
	skinMatrix += skinWeight.w * boneMatW;
	skinMatrix = bindMatrixInverse * skinMatrix * bindMatrix;
	objectNormal = vec4( skinMatrix * vec4( objectNormal, 0.0 ) ).xyz;
	#ifdef USE_TANGENT
		objectTangent = vec4( skinMatrix * vec4( objectTangent, 0.0 ) ).xyz;
	#endif
#endif`,VM=`float specularStrength;
#ifdef USE_SPECULARMAP
	vec4 texelSpecular = texture2D( specularMap, vSpecularMapUv );
	specularStrength = texelSpecular.r;
#else
	specularStrength = 1.0;
#endif`,GM=`#ifdef USE_SPECULARMAP
	uniform sampler2D specularMap;
#endif`,WM=`#if defined( TONE_MAPPING )
	gl_FragColor.rgb = toneMapping( gl_FragColor.rgb );
#endif`,XM=`#ifndef saturate
#define saturate( a ) clamp( a, 0.0, 1.0 )
#endif
uniform float toneMappingExposure;
vec3 LinearToneMapping( vec3 color ) {
	return saturate( toneMappingExposure * color );
}
vec3 ReinhardToneMapping( vec3 color ) {
	color *= toneMappingExposure;
	return saturate( color / ( vec3( 1.0 ) + color ) );
}
vec3 CineonToneMapping( vec3 color ) {
	color *= toneMappingExposure;
	color = max( vec3( 0.0 ), color - 0.004 );
	return pow( ( color * ( 6.2 * color + 0.5 ) ) / ( color * ( 6.2 * color + 1.7 ) + 0.06 ), vec3( 2.2 ) );
}
vec3 RRTAndODTFit( vec3 v ) {
	vec3 a = v * ( v + 0.0245786 ) - 0.000090537;
	vec3 b = v * ( 0.983729 * v + 0.4329510 ) + 0.238081;
	return a / b;
}
vec3 ACESFilmicToneMapping( vec3 color ) {
	const mat3 ACESInputMat = mat3(
		vec3( 0.59719, 0.07600, 0.02840 ),		vec3( 0.35458, 0.90834, 0.13383 ),
		vec3( 0.04823, 0.01566, 0.83777 )
	);
	const mat3 ACESOutputMat = mat3(
		vec3(  1.60475, -0.10208, -0.00327 ),		vec3( -0.53108,  1.10813, -0.07276 ),
		vec3( -0.07367, -0.00605,  1.07602 )
	);
	color *= toneMappingExposure / 0.6;
	color = ACESInputMat * color;
	color = RRTAndODTFit( color );
	color = ACESOutputMat * color;
	return saturate( color );
}
const mat3 LINEAR_REC2020_TO_LINEAR_SRGB = mat3(
	vec3( 1.6605, - 0.1246, - 0.0182 ),
	vec3( - 0.5876, 1.1329, - 0.1006 ),
	vec3( - 0.0728, - 0.0083, 1.1187 )
);
const mat3 LINEAR_SRGB_TO_LINEAR_REC2020 = mat3(
	vec3( 0.6274, 0.0691, 0.0164 ),
	vec3( 0.3293, 0.9195, 0.0880 ),
	vec3( 0.0433, 0.0113, 0.8956 )
);
vec3 agxDefaultContrastApprox( vec3 x ) {
	vec3 x2 = x * x;
	vec3 x4 = x2 * x2;
	return + 15.5 * x4 * x2
		- 40.14 * x4 * x
		+ 31.96 * x4
		- 6.868 * x2 * x
		+ 0.4298 * x2
		+ 0.1191 * x
		- 0.00232;
}
vec3 AgXToneMapping( vec3 color ) {
	const mat3 AgXInsetMatrix = mat3(
		vec3( 0.856627153315983, 0.137318972929847, 0.11189821299995 ),
		vec3( 0.0951212405381588, 0.761241990602591, 0.0767994186031903 ),
		vec3( 0.0482516061458583, 0.101439036467562, 0.811302368396859 )
	);
	const mat3 AgXOutsetMatrix = mat3(
		vec3( 1.1271005818144368, - 0.1413297634984383, - 0.14132976349843826 ),
		vec3( - 0.11060664309660323, 1.157823702216272, - 0.11060664309660294 ),
		vec3( - 0.016493938717834573, - 0.016493938717834257, 1.2519364065950405 )
	);
	const float AgxMinEv = - 12.47393;	const float AgxMaxEv = 4.026069;
	color *= toneMappingExposure;
	color = LINEAR_SRGB_TO_LINEAR_REC2020 * color;
	color = AgXInsetMatrix * color;
	color = max( color, 1e-10 );	color = log2( color );
	color = ( color - AgxMinEv ) / ( AgxMaxEv - AgxMinEv );
	color = clamp( color, 0.0, 1.0 );
	color = agxDefaultContrastApprox( color );
	color = AgXOutsetMatrix * color;
	color = pow( max( vec3( 0.0 ), color ), vec3( 2.2 ) );
	color = LINEAR_REC2020_TO_LINEAR_SRGB * color;
	color = clamp( color, 0.0, 1.0 );
	return color;
}
vec3 NeutralToneMapping( vec3 color ) {
	const float StartCompression = 0.8 - 0.04;
	const float Desaturation = 0.15;
	color *= toneMappingExposure;
	float x = min( color.r, min( color.g, color.b ) );
	float offset = x < 0.08 ? x - 6.25 * x * x : 0.04;
	color -= offset;
	float peak = max( color.r, max( color.g, color.b ) );
	if ( peak < StartCompression ) return color;
	float d = 1. - StartCompression;
	float newPeak = 1. - d * d / ( peak + d - StartCompression );
	color *= newPeak / peak;
	float g = 1. - 1. / ( Desaturation * ( peak - newPeak ) + 1. );
	return mix( color, vec3( newPeak ), g );
}
vec3 CustomToneMapping( vec3 color ) { return color; }`,$M=`#ifdef USE_TRANSMISSION
	material.transmission = transmission;
	material.transmissionAlpha = 1.0;
	material.thickness = thickness;
	material.attenuationDistance = attenuationDistance;
	material.attenuationColor = attenuationColor;
	#ifdef USE_TRANSMISSIONMAP
		material.transmission *= texture2D( transmissionMap, vTransmissionMapUv ).r;
	#endif
	#ifdef USE_THICKNESSMAP
		material.thickness *= texture2D( thicknessMap, vThicknessMapUv ).g;
	#endif
	vec3 pos = vWorldPosition;
	vec3 v = normalize( cameraPosition - pos );
	vec3 n = transformNormalByInverseViewMatrix( normal, viewMatrix );
	vec4 transmitted = getIBLVolumeRefraction(
		n, v, material.roughness, material.diffuseContribution, material.specularColorBlended, material.specularF90,
		pos, modelMatrix, viewMatrix, projectionMatrix, material.dispersion, material.ior, material.thickness,
		material.attenuationColor, material.attenuationDistance );
	material.transmissionAlpha = mix( material.transmissionAlpha, transmitted.a, material.transmission );
	totalDiffuse = mix( totalDiffuse, transmitted.rgb, material.transmission );
#endif`,qM=`#ifdef USE_TRANSMISSION
	uniform float transmission;
	uniform float thickness;
	uniform float attenuationDistance;
	uniform vec3 attenuationColor;
	#ifdef USE_TRANSMISSIONMAP
		uniform sampler2D transmissionMap;
	#endif
	#ifdef USE_THICKNESSMAP
		uniform sampler2D thicknessMap;
	#endif
	uniform vec2 transmissionSamplerSize;
	uniform sampler2D transmissionSamplerMap;
	uniform mat4 modelMatrix;
	uniform mat4 projectionMatrix;
	varying vec3 vWorldPosition;
	float w0( float a ) {
		return ( 1.0 / 6.0 ) * ( a * ( a * ( - a + 3.0 ) - 3.0 ) + 1.0 );
	}
	float w1( float a ) {
		return ( 1.0 / 6.0 ) * ( a *  a * ( 3.0 * a - 6.0 ) + 4.0 );
	}
	float w2( float a ){
		return ( 1.0 / 6.0 ) * ( a * ( a * ( - 3.0 * a + 3.0 ) + 3.0 ) + 1.0 );
	}
	float w3( float a ) {
		return ( 1.0 / 6.0 ) * ( a * a * a );
	}
	float g0( float a ) {
		return w0( a ) + w1( a );
	}
	float g1( float a ) {
		return w2( a ) + w3( a );
	}
	float h0( float a ) {
		return - 1.0 + w1( a ) / ( w0( a ) + w1( a ) );
	}
	float h1( float a ) {
		return 1.0 + w3( a ) / ( w2( a ) + w3( a ) );
	}
	vec4 bicubic( sampler2D tex, vec2 uv, vec4 texelSize, float lod ) {
		uv = uv * texelSize.zw + 0.5;
		vec2 iuv = floor( uv );
		vec2 fuv = fract( uv );
		float g0x = g0( fuv.x );
		float g1x = g1( fuv.x );
		float h0x = h0( fuv.x );
		float h1x = h1( fuv.x );
		float h0y = h0( fuv.y );
		float h1y = h1( fuv.y );
		vec2 p0 = ( vec2( iuv.x + h0x, iuv.y + h0y ) - 0.5 ) * texelSize.xy;
		vec2 p1 = ( vec2( iuv.x + h1x, iuv.y + h0y ) - 0.5 ) * texelSize.xy;
		vec2 p2 = ( vec2( iuv.x + h0x, iuv.y + h1y ) - 0.5 ) * texelSize.xy;
		vec2 p3 = ( vec2( iuv.x + h1x, iuv.y + h1y ) - 0.5 ) * texelSize.xy;
		return g0( fuv.y ) * ( g0x * textureLod( tex, p0, lod ) + g1x * textureLod( tex, p1, lod ) ) +
			g1( fuv.y ) * ( g0x * textureLod( tex, p2, lod ) + g1x * textureLod( tex, p3, lod ) );
	}
	vec4 textureBicubic( sampler2D sampler, vec2 uv, float lod ) {
		vec2 fLodSize = vec2( textureSize( sampler, int( lod ) ) );
		vec2 cLodSize = vec2( textureSize( sampler, int( lod + 1.0 ) ) );
		vec2 fLodSizeInv = 1.0 / fLodSize;
		vec2 cLodSizeInv = 1.0 / cLodSize;
		vec4 fSample = bicubic( sampler, uv, vec4( fLodSizeInv, fLodSize ), floor( lod ) );
		vec4 cSample = bicubic( sampler, uv, vec4( cLodSizeInv, cLodSize ), ceil( lod ) );
		return mix( fSample, cSample, fract( lod ) );
	}
	vec3 getVolumeTransmissionRay( const in vec3 n, const in vec3 v, const in float thickness, const in float ior, const in mat4 modelMatrix ) {
		vec3 refractionVector = refract( - v, normalize( n ), 1.0 / ior );
		vec3 modelScale;
		modelScale.x = length( vec3( modelMatrix[ 0 ].xyz ) );
		modelScale.y = length( vec3( modelMatrix[ 1 ].xyz ) );
		modelScale.z = length( vec3( modelMatrix[ 2 ].xyz ) );
		return normalize( refractionVector ) * thickness * modelScale;
	}
	float applyIorToRoughness( const in float roughness, const in float ior ) {
		return roughness * clamp( ior * 2.0 - 2.0, 0.0, 1.0 );
	}
	vec4 getTransmissionSample( const in vec2 fragCoord, const in float roughness, const in float ior ) {
		float lod = log2( transmissionSamplerSize.x ) * applyIorToRoughness( roughness, ior );
		return textureBicubic( transmissionSamplerMap, fragCoord.xy, lod );
	}
	vec3 volumeAttenuation( const in float transmissionDistance, const in vec3 attenuationColor, const in float attenuationDistance ) {
		if ( isinf( attenuationDistance ) ) {
			return vec3( 1.0 );
		} else {
			vec3 attenuationCoefficient = -log( attenuationColor ) / attenuationDistance;
			vec3 transmittance = exp( - attenuationCoefficient * transmissionDistance );			return transmittance;
		}
	}
	vec4 getIBLVolumeRefraction( const in vec3 n, const in vec3 v, const in float roughness, const in vec3 diffuseColor,
		const in vec3 specularColor, const in float specularF90, const in vec3 position, const in mat4 modelMatrix,
		const in mat4 viewMatrix, const in mat4 projMatrix, const in float dispersion, const in float ior, const in float thickness,
		const in vec3 attenuationColor, const in float attenuationDistance ) {
		vec4 transmittedLight;
		vec3 transmittance;
		#ifdef USE_DISPERSION
			float halfSpread = ( ior - 1.0 ) * 0.025 * dispersion;
			vec3 iors = vec3( ior - halfSpread, ior, ior + halfSpread );
			for ( int i = 0; i < 3; i ++ ) {
				vec3 transmissionRay = getVolumeTransmissionRay( n, v, thickness, iors[ i ], modelMatrix );
				vec3 refractedRayExit = position + transmissionRay;
				vec4 ndcPos = projMatrix * viewMatrix * vec4( refractedRayExit, 1.0 );
				vec2 refractionCoords = ndcPos.xy / ndcPos.w;
				refractionCoords += 1.0;
				refractionCoords /= 2.0;
				vec4 transmissionSample = getTransmissionSample( refractionCoords, roughness, iors[ i ] );
				transmittedLight[ i ] = transmissionSample[ i ];
				transmittedLight.a += transmissionSample.a;
				transmittance[ i ] = diffuseColor[ i ] * volumeAttenuation( length( transmissionRay ), attenuationColor, attenuationDistance )[ i ];
			}
			transmittedLight.a /= 3.0;
		#else
			vec3 transmissionRay = getVolumeTransmissionRay( n, v, thickness, ior, modelMatrix );
			vec3 refractedRayExit = position + transmissionRay;
			vec4 ndcPos = projMatrix * viewMatrix * vec4( refractedRayExit, 1.0 );
			vec2 refractionCoords = ndcPos.xy / ndcPos.w;
			refractionCoords += 1.0;
			refractionCoords /= 2.0;
			transmittedLight = getTransmissionSample( refractionCoords, roughness, ior );
			transmittance = diffuseColor * volumeAttenuation( length( transmissionRay ), attenuationColor, attenuationDistance );
		#endif
		vec3 attenuatedColor = transmittance * transmittedLight.rgb;
		vec3 F = EnvironmentBRDF( n, v, specularColor, specularF90, roughness );
		float transmittanceFactor = ( transmittance.r + transmittance.g + transmittance.b ) / 3.0;
		return vec4( ( 1.0 - F ) * attenuatedColor, 1.0 - ( 1.0 - transmittedLight.a ) * transmittanceFactor );
	}
#endif`,YM=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	varying vec2 vUv;
#endif
#ifdef USE_MAP
	varying vec2 vMapUv;
#endif
#ifdef USE_ALPHAMAP
	varying vec2 vAlphaMapUv;
#endif
#ifdef USE_LIGHTMAP
	varying vec2 vLightMapUv;
#endif
#ifdef USE_AOMAP
	varying vec2 vAoMapUv;
#endif
#ifdef USE_BUMPMAP
	varying vec2 vBumpMapUv;
#endif
#ifdef USE_NORMALMAP
	varying vec2 vNormalMapUv;
#endif
#ifdef USE_EMISSIVEMAP
	varying vec2 vEmissiveMapUv;
#endif
#ifdef USE_METALNESSMAP
	varying vec2 vMetalnessMapUv;
#endif
#ifdef USE_ROUGHNESSMAP
	varying vec2 vRoughnessMapUv;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	varying vec2 vDiffuseRoughnessMapUv;
#endif
#ifdef USE_ANISOTROPYMAP
	varying vec2 vAnisotropyMapUv;
#endif
#ifdef USE_CLEARCOATMAP
	varying vec2 vClearcoatMapUv;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	varying vec2 vClearcoatNormalMapUv;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	varying vec2 vClearcoatRoughnessMapUv;
#endif
#ifdef USE_IRIDESCENCEMAP
	varying vec2 vIridescenceMapUv;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	varying vec2 vIridescenceThicknessMapUv;
#endif
#ifdef USE_SHEEN_COLORMAP
	varying vec2 vSheenColorMapUv;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	varying vec2 vSheenRoughnessMapUv;
#endif
#ifdef USE_SPECULARMAP
	varying vec2 vSpecularMapUv;
#endif
#ifdef USE_SPECULAR_COLORMAP
	varying vec2 vSpecularColorMapUv;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	varying vec2 vSpecularIntensityMapUv;
#endif
#ifdef USE_TRANSMISSIONMAP
	uniform mat3 transmissionMapTransform;
	varying vec2 vTransmissionMapUv;
#endif
#ifdef USE_THICKNESSMAP
	uniform mat3 thicknessMapTransform;
	varying vec2 vThicknessMapUv;
#endif`,KM=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	varying vec2 vUv;
#endif
#ifdef USE_MAP
	uniform mat3 mapTransform;
	varying vec2 vMapUv;
#endif
#ifdef USE_ALPHAMAP
	uniform mat3 alphaMapTransform;
	varying vec2 vAlphaMapUv;
#endif
#ifdef USE_LIGHTMAP
	uniform mat3 lightMapTransform;
	varying vec2 vLightMapUv;
#endif
#ifdef USE_AOMAP
	uniform mat3 aoMapTransform;
	varying vec2 vAoMapUv;
#endif
#ifdef USE_BUMPMAP
	uniform mat3 bumpMapTransform;
	varying vec2 vBumpMapUv;
#endif
#ifdef USE_NORMALMAP
	uniform mat3 normalMapTransform;
	varying vec2 vNormalMapUv;
#endif
#ifdef USE_DISPLACEMENTMAP
	uniform mat3 displacementMapTransform;
	varying vec2 vDisplacementMapUv;
#endif
#ifdef USE_EMISSIVEMAP
	uniform mat3 emissiveMapTransform;
	varying vec2 vEmissiveMapUv;
#endif
#ifdef USE_METALNESSMAP
	uniform mat3 metalnessMapTransform;
	varying vec2 vMetalnessMapUv;
#endif
#ifdef USE_ROUGHNESSMAP
	uniform mat3 roughnessMapTransform;
	varying vec2 vRoughnessMapUv;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	uniform mat3 diffuseRoughnessMapTransform;
	varying vec2 vDiffuseRoughnessMapUv;
#endif
#ifdef USE_ANISOTROPYMAP
	uniform mat3 anisotropyMapTransform;
	varying vec2 vAnisotropyMapUv;
#endif
#ifdef USE_CLEARCOATMAP
	uniform mat3 clearcoatMapTransform;
	varying vec2 vClearcoatMapUv;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	uniform mat3 clearcoatNormalMapTransform;
	varying vec2 vClearcoatNormalMapUv;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	uniform mat3 clearcoatRoughnessMapTransform;
	varying vec2 vClearcoatRoughnessMapUv;
#endif
#ifdef USE_SHEEN_COLORMAP
	uniform mat3 sheenColorMapTransform;
	varying vec2 vSheenColorMapUv;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	uniform mat3 sheenRoughnessMapTransform;
	varying vec2 vSheenRoughnessMapUv;
#endif
#ifdef USE_IRIDESCENCEMAP
	uniform mat3 iridescenceMapTransform;
	varying vec2 vIridescenceMapUv;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	uniform mat3 iridescenceThicknessMapTransform;
	varying vec2 vIridescenceThicknessMapUv;
#endif
#ifdef USE_SPECULARMAP
	uniform mat3 specularMapTransform;
	varying vec2 vSpecularMapUv;
#endif
#ifdef USE_SPECULAR_COLORMAP
	uniform mat3 specularColorMapTransform;
	varying vec2 vSpecularColorMapUv;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	uniform mat3 specularIntensityMapTransform;
	varying vec2 vSpecularIntensityMapUv;
#endif
#ifdef USE_TRANSMISSIONMAP
	uniform mat3 transmissionMapTransform;
	varying vec2 vTransmissionMapUv;
#endif
#ifdef USE_THICKNESSMAP
	uniform mat3 thicknessMapTransform;
	varying vec2 vThicknessMapUv;
#endif`,ZM=`#if defined( USE_UV ) || defined( USE_ANISOTROPY )
	vUv = vec3( uv, 1 ).xy;
#endif
#ifdef USE_MAP
	vMapUv = ( mapTransform * vec3( MAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ALPHAMAP
	vAlphaMapUv = ( alphaMapTransform * vec3( ALPHAMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_LIGHTMAP
	vLightMapUv = ( lightMapTransform * vec3( LIGHTMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_AOMAP
	vAoMapUv = ( aoMapTransform * vec3( AOMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_BUMPMAP
	vBumpMapUv = ( bumpMapTransform * vec3( BUMPMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_NORMALMAP
	vNormalMapUv = ( normalMapTransform * vec3( NORMALMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_DISPLACEMENTMAP
	vDisplacementMapUv = ( displacementMapTransform * vec3( DISPLACEMENTMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_EMISSIVEMAP
	vEmissiveMapUv = ( emissiveMapTransform * vec3( EMISSIVEMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_METALNESSMAP
	vMetalnessMapUv = ( metalnessMapTransform * vec3( METALNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ROUGHNESSMAP
	vRoughnessMapUv = ( roughnessMapTransform * vec3( ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_DIFFUSE_ROUGHNESSMAP
	vDiffuseRoughnessMapUv = ( diffuseRoughnessMapTransform * vec3( DIFFUSE_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_ANISOTROPYMAP
	vAnisotropyMapUv = ( anisotropyMapTransform * vec3( ANISOTROPYMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOATMAP
	vClearcoatMapUv = ( clearcoatMapTransform * vec3( CLEARCOATMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOAT_NORMALMAP
	vClearcoatNormalMapUv = ( clearcoatNormalMapTransform * vec3( CLEARCOAT_NORMALMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_CLEARCOAT_ROUGHNESSMAP
	vClearcoatRoughnessMapUv = ( clearcoatRoughnessMapTransform * vec3( CLEARCOAT_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_IRIDESCENCEMAP
	vIridescenceMapUv = ( iridescenceMapTransform * vec3( IRIDESCENCEMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_IRIDESCENCE_THICKNESSMAP
	vIridescenceThicknessMapUv = ( iridescenceThicknessMapTransform * vec3( IRIDESCENCE_THICKNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SHEEN_COLORMAP
	vSheenColorMapUv = ( sheenColorMapTransform * vec3( SHEEN_COLORMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SHEEN_ROUGHNESSMAP
	vSheenRoughnessMapUv = ( sheenRoughnessMapTransform * vec3( SHEEN_ROUGHNESSMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULARMAP
	vSpecularMapUv = ( specularMapTransform * vec3( SPECULARMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULAR_COLORMAP
	vSpecularColorMapUv = ( specularColorMapTransform * vec3( SPECULAR_COLORMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_SPECULAR_INTENSITYMAP
	vSpecularIntensityMapUv = ( specularIntensityMapTransform * vec3( SPECULAR_INTENSITYMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_TRANSMISSIONMAP
	vTransmissionMapUv = ( transmissionMapTransform * vec3( TRANSMISSIONMAP_UV, 1 ) ).xy;
#endif
#ifdef USE_THICKNESSMAP
	vThicknessMapUv = ( thicknessMapTransform * vec3( THICKNESSMAP_UV, 1 ) ).xy;
#endif`,JM=`#if defined( USE_ENVMAP ) || defined( DISTANCE ) || defined ( USE_SHADOWMAP ) || defined ( USE_TRANSMISSION ) || NUM_SPOT_LIGHT_COORDS > 0
	vec4 worldPosition = vec4( transformed, 1.0 );
	#ifdef USE_BATCHING
		worldPosition = batchingMatrix * worldPosition;
	#endif
	#ifdef USE_INSTANCING
		worldPosition = instanceMatrix * worldPosition;
	#endif
	worldPosition = modelMatrix * worldPosition;
#endif`,jM=`varying vec2 vUv;
uniform mat3 uvTransform;
void main() {
	vUv = ( uvTransform * vec3( uv, 1 ) ).xy;
	gl_Position = vec4( position.xy, 1.0, 1.0 );
}`,QM=`uniform sampler2D t2D;
uniform float backgroundIntensity;
varying vec2 vUv;
void main() {
	vec4 texColor = texture2D( t2D, vUv );
	#ifdef DECODE_VIDEO_TEXTURE
		texColor = vec4( mix( pow( texColor.rgb * 0.9478672986 + vec3( 0.0521327014 ), vec3( 2.4 ) ), texColor.rgb * 0.0773993808, vec3( lessThanEqual( texColor.rgb, vec3( 0.04045 ) ) ) ), texColor.w );
	#endif
	texColor.rgb *= backgroundIntensity;
	gl_FragColor = texColor;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,tb=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
	gl_Position.z = gl_Position.w;
}`,eb=`uniform float backgroundBlurriness;
uniform float backgroundIntensity;
uniform mat3 backgroundRotation;
varying vec3 vWorldDirection;
#include <envmap_common_pars_fragment>
void main() {
	#ifdef ENVMAP_TYPE_PMREM
		vec4 texColor = textureLod( envMap, backgroundRotation * vWorldDirection, roughnessToMip( backgroundBlurriness ) );
	#else
		vec4 texColor = textureCube( envMap, backgroundRotation * vWorldDirection );
	#endif
	texColor.rgb *= backgroundIntensity;
	gl_FragColor = texColor;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,ib=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
	gl_Position.z = gl_Position.w;
}`,nb=`uniform samplerCube tCube;
uniform float tFlip;
uniform float opacity;
varying vec3 vWorldDirection;
void main() {
	vec4 texColor = textureCube( tCube, vec3( tFlip * vWorldDirection.x, vWorldDirection.yz ) );
	gl_FragColor = texColor;
	gl_FragColor.a *= opacity;
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,sb=`#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
varying vec2 vHighPrecisionZW;
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <skinbase_vertex>
	#include <morphinstance_vertex>
	#ifdef USE_DISPLACEMENTMAP
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vHighPrecisionZW = gl_Position.zw;
}`,rb=`#if DEPTH_PACKING == 3200
	uniform float opacity;
#endif
#include <common>
#include <packing>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
varying vec2 vHighPrecisionZW;
void main() {
	vec4 diffuseColor = vec4( 1.0 );
	#include <clipping_planes_fragment>
	#if DEPTH_PACKING == 3200
		diffuseColor.a = opacity;
	#endif
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <logdepthbuf_fragment>
	#ifdef USE_REVERSED_DEPTH_BUFFER
		float fragCoordZ = vHighPrecisionZW[ 0 ] / vHighPrecisionZW[ 1 ];
	#else
		float fragCoordZ = 0.5 * vHighPrecisionZW[ 0 ] / vHighPrecisionZW[ 1 ] + 0.5;
	#endif
	#if DEPTH_PACKING == 3200
		gl_FragColor = vec4( vec3( 1.0 - fragCoordZ ), opacity );
	#elif DEPTH_PACKING == 3201
		gl_FragColor = packDepthToRGBA( fragCoordZ );
	#elif DEPTH_PACKING == 3202
		gl_FragColor = vec4( packDepthToRGB( fragCoordZ ), 1.0 );
	#elif DEPTH_PACKING == 3203
		gl_FragColor = vec4( packDepthToRG( fragCoordZ ), 0.0, 1.0 );
	#endif
}`,ob=`#define DISTANCE
varying vec3 vWorldPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <skinbase_vertex>
	#include <morphinstance_vertex>
	#ifdef USE_DISPLACEMENTMAP
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <worldpos_vertex>
	#include <clipping_planes_vertex>
	vWorldPosition = worldPosition.xyz;
}`,ab=`#define DISTANCE
uniform vec3 referencePosition;
uniform float nearDistance;
uniform float farDistance;
varying vec3 vWorldPosition;
#include <common>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( 1.0 );
	#include <clipping_planes_fragment>
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	float dist = length( vWorldPosition - referencePosition );
	dist = ( dist - nearDistance ) / ( farDistance - nearDistance );
	dist = saturate( dist );
	gl_FragColor = vec4( dist, 0.0, 0.0, 1.0 );
}`,lb=`varying vec3 vWorldDirection;
#include <common>
void main() {
	vWorldDirection = transformDirection( position, modelMatrix );
	#include <begin_vertex>
	#include <project_vertex>
}`,cb=`uniform sampler2D tEquirect;
varying vec3 vWorldDirection;
#include <common>
void main() {
	vec3 direction = normalize( vWorldDirection );
	vec2 sampleUV = equirectUv( direction );
	gl_FragColor = texture2D( tEquirect, sampleUV );
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
}`,hb=`uniform float scale;
attribute float lineDistance;
varying float vLineDistance;
#include <common>
#include <uv_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	vLineDistance = scale * lineDistance;
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
}`,ub=`uniform vec3 diffuse;
uniform float opacity;
uniform float dashSize;
uniform float totalSize;
varying float vLineDistance;
#include <common>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	if ( mod( vLineDistance, totalSize ) > dashSize ) {
		discard;
	}
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,fb=`#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#if defined ( USE_ENVMAP ) || defined ( USE_SKINNING )
		#include <beginnormal_vertex>
		#include <morphnormal_vertex>
		#include <skinbase_vertex>
		#include <skinnormal_vertex>
		#include <defaultnormal_vertex>
	#endif
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <fog_vertex>
}`,db=`uniform vec3 diffuse;
uniform float opacity;
#ifndef FLAT_SHADED
	varying vec3 vNormal;
#endif
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <fog_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	#ifdef USE_LIGHTMAP
		vec4 lightMapTexel = texture2D( lightMap, vLightMapUv );
		reflectedLight.indirectDiffuse += lightMapTexel.rgb * lightMapIntensity * RECIPROCAL_PI;
	#else
		reflectedLight.indirectDiffuse += vec3( 1.0 );
	#endif
	#include <aomap_fragment>
	reflectedLight.indirectDiffuse *= diffuseColor.rgb;
	vec3 outgoingLight = reflectedLight.indirectDiffuse;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,pb=`#define LAMBERT
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,mb=`#define LAMBERT
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_lambert_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_lambert_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + totalEmissiveRadiance;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,gb=`#define MATCAP
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <color_pars_vertex>
#include <displacementmap_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
	vViewPosition = - mvPosition.xyz;
}`,_b=`#define MATCAP
uniform vec3 diffuse;
uniform float opacity;
uniform sampler2D matcap;
varying vec3 vViewPosition;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <normal_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	vec3 viewDir = normalize( vViewPosition );
	vec3 x = normalize( vec3( viewDir.z, 0.0, - viewDir.x ) );
	vec3 y = cross( viewDir, x );
	vec2 uv = vec2( dot( x, normal ), dot( y, normal ) ) * 0.495 + 0.5;
	#ifdef USE_MATCAP
		vec4 matcapColor = texture2D( matcap, uv );
	#else
		vec4 matcapColor = vec4( vec3( mix( 0.2, 0.8, uv.y ) ), 1.0 );
	#endif
	vec3 outgoingLight = diffuseColor.rgb * matcapColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,yb=`#define NORMAL
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	varying vec3 vViewPosition;
#endif
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	vViewPosition = - mvPosition.xyz;
#endif
}`,xb=`#define NORMAL
uniform float opacity;
#if defined( FLAT_SHADED ) || defined( USE_BUMPMAP ) || defined( USE_NORMALMAP_TANGENTSPACE )
	varying vec3 vViewPosition;
#endif
#include <uv_pars_fragment>
#include <normal_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( 0.0, 0.0, 0.0, opacity );
	#include <clipping_planes_fragment>
	#include <logdepthbuf_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	gl_FragColor = vec4( normalize( normal ) * 0.5 + 0.5, diffuseColor.a );
	#ifdef OPAQUE
		gl_FragColor.a = 1.0;
	#endif
}`,vb=`#define PHONG
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <envmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <envmap_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Sb=`#define PHONG
uniform vec3 diffuse;
uniform vec3 emissive;
uniform vec3 specular;
uniform float shininess;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_phong_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <specularmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <specularmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_phong_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + reflectedLight.directSpecular + reflectedLight.indirectSpecular + totalEmissiveRadiance;
	#include <envmap_fragment>
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,wb=`#define STANDARD
varying vec3 vViewPosition;
#ifdef USE_TRANSMISSION
	varying vec3 vWorldPosition;
#endif
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
#ifdef USE_TRANSMISSION
	vWorldPosition = worldPosition.xyz;
#endif
}`,Mb=`#define STANDARD
#ifdef PHYSICAL
	#define IOR
	#define USE_SPECULAR
#endif
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float roughness;
uniform float metalness;
uniform float opacity;
#ifdef IOR
	uniform float ior;
#endif
#ifdef USE_SPECULAR
	uniform float specularIntensity;
	uniform vec3 specularColor;
	#ifdef USE_SPECULAR_COLORMAP
		uniform sampler2D specularColorMap;
	#endif
	#ifdef USE_SPECULAR_INTENSITYMAP
		uniform sampler2D specularIntensityMap;
	#endif
#endif
#ifdef USE_CLEARCOAT
	uniform float clearcoat;
	uniform float clearcoatRoughness;
#endif
#ifdef USE_DIFFUSE_ROUGHNESS
	uniform float diffuseRoughness;
	#ifdef USE_DIFFUSE_ROUGHNESSMAP
		uniform sampler2D diffuseRoughnessMap;
	#endif
#endif
#ifdef USE_DISPERSION
	uniform float dispersion;
#endif
#ifdef USE_RETROREFLECTION
	uniform float retroreflectivity;
#endif
#ifdef USE_IRIDESCENCE
	uniform float iridescence;
	uniform float iridescenceIOR;
	uniform float iridescenceThicknessMinimum;
	uniform float iridescenceThicknessMaximum;
#endif
#ifdef USE_SHEEN
	uniform vec3 sheenColor;
	uniform float sheenRoughness;
	#ifdef USE_SHEEN_COLORMAP
		uniform sampler2D sheenColorMap;
	#endif
	#ifdef USE_SHEEN_ROUGHNESSMAP
		uniform sampler2D sheenRoughnessMap;
	#endif
#endif
#ifdef USE_ANISOTROPY
	uniform vec2 anisotropyVector;
	#ifdef USE_ANISOTROPYMAP
		uniform sampler2D anisotropyMap;
	#endif
#endif
varying vec3 vViewPosition;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <iridescence_fragment>
#include <envmap_common_pars_fragment>
#include <envmap_physical_pars_fragment>
#include <fog_pars_fragment>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_physical_pars_fragment>
#include <transmission_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <clearcoat_pars_fragment>
#include <iridescence_pars_fragment>
#include <roughnessmap_pars_fragment>
#include <metalnessmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <roughnessmap_fragment>
	#include <metalnessmap_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <clearcoat_normal_fragment_begin>
	#include <clearcoat_normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_physical_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 totalDiffuse = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse;
	vec3 totalSpecular = reflectedLight.directSpecular + reflectedLight.indirectSpecular;
	#include <transmission_fragment>
	vec3 outgoingLight = totalDiffuse + totalSpecular + totalEmissiveRadiance;
	#ifdef USE_SHEEN
 
		outgoingLight = outgoingLight + sheenSpecularDirect + sheenSpecularIndirect;
 
 	#endif
	#ifdef USE_CLEARCOAT
		float dotNVcc = saturate( dot( geometryClearcoatNormal, geometryViewDir ) );
		vec3 Fcc = F_Schlick( material.clearcoatF0, material.clearcoatF90, dotNVcc );
		outgoingLight = outgoingLight * ( 1.0 - material.clearcoat * Fcc ) + ( clearcoatSpecularDirect + clearcoatSpecularIndirect ) * material.clearcoat;
	#endif
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,bb=`#define TOON
varying vec3 vViewPosition;
#include <common>
#include <batching_pars_vertex>
#include <uv_pars_vertex>
#include <displacementmap_pars_vertex>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <normal_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <shadowmap_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <normal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <displacementmap_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	vViewPosition = - mvPosition.xyz;
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Tb=`#define TOON
uniform vec3 diffuse;
uniform vec3 emissive;
uniform float opacity;
#include <common>
#include <dithering_pars_fragment>
#include <color_pars_fragment>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <aomap_pars_fragment>
#include <lightmap_pars_fragment>
#include <emissivemap_pars_fragment>
#include <gradientmap_pars_fragment>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <normal_pars_fragment>
#include <lights_toon_pars_fragment>
#include <shadowmap_pars_fragment>
#include <bumpmap_pars_fragment>
#include <normalmap_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	ReflectedLight reflectedLight = ReflectedLight( vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ), vec3( 0.0 ) );
	vec3 totalEmissiveRadiance = emissive;
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <color_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	#include <normal_fragment_begin>
	#include <normal_fragment_maps>
	#include <emissivemap_fragment>
	#include <lights_toon_fragment>
	#include <lights_fragment_begin>
	#include <lights_fragment_maps>
	#include <lights_fragment_end>
	#include <aomap_fragment>
	vec3 outgoingLight = reflectedLight.directDiffuse + reflectedLight.indirectDiffuse + totalEmissiveRadiance;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
	#include <dithering_fragment>
}`,Eb=`uniform float size;
uniform float scale;
#include <common>
#include <color_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
#ifdef USE_POINTS_UV
	varying vec2 vUv;
	uniform mat3 uvTransform;
#endif
void main() {
	#ifdef USE_POINTS_UV
		vUv = ( uvTransform * vec3( uv, 1 ) ).xy;
	#endif
	#include <color_vertex>
	#include <morphinstance_vertex>
	#include <morphcolor_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <project_vertex>
	gl_PointSize = size;
	#ifdef USE_SIZEATTENUATION
		bool isPerspective = isPerspectiveMatrix( projectionMatrix );
		if ( isPerspective ) gl_PointSize *= ( scale / - mvPosition.z );
	#endif
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <worldpos_vertex>
	#include <fog_vertex>
}`,Ab=`uniform vec3 diffuse;
uniform float opacity;
#include <common>
#include <color_pars_fragment>
#include <map_particle_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_particle_fragment>
	#include <color_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,Rb=`#include <common>
#include <batching_pars_vertex>
#include <fog_pars_vertex>
#include <morphtarget_pars_vertex>
#include <skinning_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <shadowmap_pars_vertex>
void main() {
	#include <batching_vertex>
	#include <beginnormal_vertex>
	#include <morphinstance_vertex>
	#include <morphnormal_vertex>
	#include <skinbase_vertex>
	#include <skinnormal_vertex>
	#include <defaultnormal_vertex>
	#include <begin_vertex>
	#include <morphtarget_vertex>
	#include <skinning_vertex>
	#include <project_vertex>
	#include <logdepthbuf_vertex>
	#include <worldpos_vertex>
	#include <shadowmap_vertex>
	#include <fog_vertex>
}`,Cb=`uniform vec3 color;
uniform float opacity;
#include <common>
#include <fog_pars_fragment>
#include <bsdfs>
#include <lights_pars_begin>
#include <logdepthbuf_pars_fragment>
#include <shadowmap_pars_fragment>
#include <shadowmask_pars_fragment>
void main() {
	#include <logdepthbuf_fragment>
	gl_FragColor = vec4( color, opacity * ( 1.0 - getShadowMask() ) );
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
	#include <premultiplied_alpha_fragment>
}`,Pb=`uniform float rotation;
uniform vec2 center;
#include <common>
#include <uv_pars_vertex>
#include <fog_pars_vertex>
#include <logdepthbuf_pars_vertex>
#include <clipping_planes_pars_vertex>
void main() {
	#include <uv_vertex>
	vec4 mvPosition = modelViewMatrix[ 3 ];
	vec2 scale = vec2( length( modelMatrix[ 0 ].xyz ), length( modelMatrix[ 1 ].xyz ) );
	#ifndef USE_SIZEATTENUATION
		bool isPerspective = isPerspectiveMatrix( projectionMatrix );
		if ( isPerspective ) scale *= - mvPosition.z;
	#endif
	vec2 alignedPosition = ( position.xy - ( center - vec2( 0.5 ) ) ) * scale;
	vec2 rotatedPosition;
	rotatedPosition.x = cos( rotation ) * alignedPosition.x - sin( rotation ) * alignedPosition.y;
	rotatedPosition.y = sin( rotation ) * alignedPosition.x + cos( rotation ) * alignedPosition.y;
	mvPosition.xy += rotatedPosition;
	gl_Position = projectionMatrix * mvPosition;
	#include <logdepthbuf_vertex>
	#include <clipping_planes_vertex>
	#include <fog_vertex>
}`,Ib=`uniform vec3 diffuse;
uniform float opacity;
#include <common>
#include <uv_pars_fragment>
#include <map_pars_fragment>
#include <alphamap_pars_fragment>
#include <alphatest_pars_fragment>
#include <alphahash_pars_fragment>
#include <fog_pars_fragment>
#include <logdepthbuf_pars_fragment>
#include <clipping_planes_pars_fragment>
void main() {
	vec4 diffuseColor = vec4( diffuse, opacity );
	#include <clipping_planes_fragment>
	vec3 outgoingLight = vec3( 0.0 );
	#include <logdepthbuf_fragment>
	#include <map_fragment>
	#include <alphamap_fragment>
	#include <alphatest_fragment>
	#include <alphahash_fragment>
	outgoingLight = diffuseColor.rgb;
	#include <opaque_fragment>
	#include <tonemapping_fragment>
	#include <colorspace_fragment>
	#include <fog_fragment>
}`,Gt={alphahash_fragment:QS,alphahash_pars_fragment:tw,alphamap_fragment:ew,alphamap_pars_fragment:iw,alphatest_fragment:nw,alphatest_pars_fragment:sw,aomap_fragment:rw,aomap_pars_fragment:ow,batching_pars_vertex:aw,batching_vertex:lw,begin_vertex:cw,beginnormal_vertex:hw,bsdfs:uw,iridescence_fragment:fw,bumpmap_pars_fragment:dw,clipping_planes_fragment:pw,clipping_planes_pars_fragment:mw,clipping_planes_pars_vertex:gw,clipping_planes_vertex:_w,color_fragment:yw,color_pars_fragment:xw,color_pars_vertex:vw,color_vertex:Sw,common:ww,defaultnormal_vertex:Mw,displacementmap_pars_vertex:bw,displacementmap_vertex:Tw,emissivemap_fragment:Ew,emissivemap_pars_fragment:Aw,colorspace_fragment:Rw,colorspace_pars_fragment:Cw,envmap_fragment:Pw,envmap_common_pars_fragment:Iw,envmap_pars_fragment:Lw,envmap_pars_vertex:Nw,envmap_physical_pars_fragment:Ww,envmap_vertex:Dw,fog_vertex:Ow,fog_pars_vertex:Uw,fog_fragment:Fw,fog_pars_fragment:Bw,gradientmap_pars_fragment:kw,lightmap_pars_fragment:zw,lights_lambert_fragment:Hw,lights_lambert_pars_fragment:Vw,lights_pars_begin:Gw,lights_toon_fragment:Xw,lights_toon_pars_fragment:$w,lights_phong_fragment:qw,lights_phong_pars_fragment:Yw,lights_physical_fragment:Kw,lights_physical_pars_fragment:Zw,lights_fragment_begin:Jw,lights_fragment_maps:jw,lights_fragment_end:Qw,lightprobes_pars_fragment:tM,logdepthbuf_fragment:eM,logdepthbuf_pars_fragment:iM,logdepthbuf_pars_vertex:nM,logdepthbuf_vertex:sM,map_fragment:rM,map_pars_fragment:oM,map_particle_fragment:aM,map_particle_pars_fragment:lM,metalnessmap_fragment:cM,metalnessmap_pars_fragment:hM,morphinstance_vertex:uM,morphcolor_vertex:fM,morphnormal_vertex:dM,morphtarget_pars_vertex:pM,morphtarget_vertex:mM,normal_fragment_begin:gM,normal_fragment_maps:_M,normal_pars_fragment:yM,normal_pars_vertex:xM,normal_vertex:vM,normalmap_pars_fragment:SM,clearcoat_normal_fragment_begin:wM,clearcoat_normal_fragment_maps:MM,clearcoat_pars_fragment:bM,iridescence_pars_fragment:TM,opaque_fragment:EM,packing:AM,premultiplied_alpha_fragment:RM,project_vertex:CM,dithering_fragment:PM,dithering_pars_fragment:IM,roughnessmap_fragment:LM,roughnessmap_pars_fragment:NM,shadowmap_pars_fragment:DM,shadowmap_pars_vertex:OM,shadowmap_vertex:UM,shadowmask_pars_fragment:FM,skinbase_vertex:BM,skinning_pars_vertex:kM,skinning_vertex:zM,skinnormal_vertex:HM,specularmap_fragment:VM,specularmap_pars_fragment:GM,tonemapping_fragment:WM,tonemapping_pars_fragment:XM,transmission_fragment:$M,transmission_pars_fragment:qM,uv_pars_fragment:YM,uv_pars_vertex:KM,uv_vertex:ZM,worldpos_vertex:JM,background_vert:jM,background_frag:QM,backgroundCube_vert:tb,backgroundCube_frag:eb,cube_vert:ib,cube_frag:nb,depth_vert:sb,depth_frag:rb,distance_vert:ob,distance_frag:ab,equirect_vert:lb,equirect_frag:cb,linedashed_vert:hb,linedashed_frag:ub,meshbasic_vert:fb,meshbasic_frag:db,meshlambert_vert:pb,meshlambert_frag:mb,meshmatcap_vert:gb,meshmatcap_frag:_b,meshnormal_vert:yb,meshnormal_frag:xb,meshphong_vert:vb,meshphong_frag:Sb,meshphysical_vert:wb,meshphysical_frag:Mb,meshtoon_vert:bb,meshtoon_frag:Tb,points_vert:Eb,points_frag:Ab,shadow_vert:Rb,shadow_frag:Cb,sprite_vert:Pb,sprite_frag:Ib},_t={common:{diffuse:{value:new Xt(16777215)},opacity:{value:1},map:{value:null},mapTransform:{value:new Nt},alphaMap:{value:null},alphaMapTransform:{value:new Nt},alphaTest:{value:0}},specularmap:{specularMap:{value:null},specularMapTransform:{value:new Nt}},envmap:{envMap:{value:null},envMapRotation:{value:new Nt},reflectivity:{value:1},ior:{value:1.5},refractionRatio:{value:.98},dfgLUT:{value:null}},aomap:{aoMap:{value:null},aoMapIntensity:{value:1},aoMapTransform:{value:new Nt}},lightmap:{lightMap:{value:null},lightMapIntensity:{value:1},lightMapTransform:{value:new Nt}},bumpmap:{bumpMap:{value:null},bumpMapTransform:{value:new Nt},bumpScale:{value:1}},normalmap:{normalMap:{value:null},normalMapTransform:{value:new Nt},normalScale:{value:new Tt(1,1)}},displacementmap:{displacementMap:{value:null},displacementMapTransform:{value:new Nt},displacementScale:{value:1},displacementBias:{value:0}},emissivemap:{emissiveMap:{value:null},emissiveMapTransform:{value:new Nt}},metalnessmap:{metalnessMap:{value:null},metalnessMapTransform:{value:new Nt}},roughnessmap:{roughnessMap:{value:null},roughnessMapTransform:{value:new Nt}},gradientmap:{gradientMap:{value:null}},fog:{fogDensity:{value:25e-5},fogNear:{value:1},fogFar:{value:2e3},fogColor:{value:new Xt(16777215)}},lights:{ambientLightColor:{value:[]},lightProbe:{value:[]},sunLights:{value:[],properties:{direction:{},color:{}}},sunLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},sunShadowMatrix:{value:[]},sunShadowCascade:{value:[]},directionalLights:{value:[],properties:{direction:{},color:{}}},directionalLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},directionalShadowMatrix:{value:[]},spotLights:{value:[],properties:{color:{},position:{},direction:{},distance:{},coneCos:{},penumbraCos:{},decay:{}}},spotLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{}}},spotLightMap:{value:[]},spotLightMatrix:{value:[]},pointLights:{value:[],properties:{color:{},position:{},decay:{},distance:{}}},pointLightShadows:{value:[],properties:{shadowIntensity:1,shadowBias:{},shadowNormalBias:{},shadowRadius:{},shadowMapSize:{},shadowCameraNear:{},shadowCameraFar:{}}},pointShadowMatrix:{value:[]},hemisphereLights:{value:[],properties:{direction:{},skyColor:{},groundColor:{}}},rectAreaLights:{value:[],properties:{color:{},position:{},width:{},height:{}}},ltc_1:{value:null},ltc_2:{value:null},probesSH:{value:[]},probesMin:{value:[]},probesMax:{value:[]},probesResolution:{value:[]}},points:{diffuse:{value:new Xt(16777215)},opacity:{value:1},size:{value:1},scale:{value:1},map:{value:null},alphaMap:{value:null},alphaMapTransform:{value:new Nt},alphaTest:{value:0},uvTransform:{value:new Nt}},sprite:{diffuse:{value:new Xt(16777215)},opacity:{value:1},center:{value:new Tt(.5,.5)},rotation:{value:0},map:{value:null},mapTransform:{value:new Nt},alphaMap:{value:null},alphaMapTransform:{value:new Nt},alphaTest:{value:0}}},Mn={basic:{uniforms:pi([_t.common,_t.specularmap,_t.envmap,_t.aomap,_t.lightmap,_t.fog]),vertexShader:Gt.meshbasic_vert,fragmentShader:Gt.meshbasic_frag},lambert:{uniforms:pi([_t.common,_t.specularmap,_t.envmap,_t.aomap,_t.lightmap,_t.emissivemap,_t.bumpmap,_t.normalmap,_t.displacementmap,_t.fog,_t.lights,{emissive:{value:new Xt(0)},envMapIntensity:{value:1}}]),vertexShader:Gt.meshlambert_vert,fragmentShader:Gt.meshlambert_frag},phong:{uniforms:pi([_t.common,_t.specularmap,_t.envmap,_t.aomap,_t.lightmap,_t.emissivemap,_t.bumpmap,_t.normalmap,_t.displacementmap,_t.fog,_t.lights,{emissive:{value:new Xt(0)},specular:{value:new Xt(1118481)},shininess:{value:30},envMapIntensity:{value:1}}]),vertexShader:Gt.meshphong_vert,fragmentShader:Gt.meshphong_frag},standard:{uniforms:pi([_t.common,_t.envmap,_t.aomap,_t.lightmap,_t.emissivemap,_t.bumpmap,_t.normalmap,_t.displacementmap,_t.roughnessmap,_t.metalnessmap,_t.fog,_t.lights,{emissive:{value:new Xt(0)},roughness:{value:1},metalness:{value:0},envMapIntensity:{value:1}}]),vertexShader:Gt.meshphysical_vert,fragmentShader:Gt.meshphysical_frag},toon:{uniforms:pi([_t.common,_t.aomap,_t.lightmap,_t.emissivemap,_t.bumpmap,_t.normalmap,_t.displacementmap,_t.gradientmap,_t.fog,_t.lights,{emissive:{value:new Xt(0)}}]),vertexShader:Gt.meshtoon_vert,fragmentShader:Gt.meshtoon_frag},matcap:{uniforms:pi([_t.common,_t.bumpmap,_t.normalmap,_t.displacementmap,_t.fog,{matcap:{value:null}}]),vertexShader:Gt.meshmatcap_vert,fragmentShader:Gt.meshmatcap_frag},points:{uniforms:pi([_t.points,_t.fog]),vertexShader:Gt.points_vert,fragmentShader:Gt.points_frag},dashed:{uniforms:pi([_t.common,_t.fog,{scale:{value:1},dashSize:{value:1},totalSize:{value:2}}]),vertexShader:Gt.linedashed_vert,fragmentShader:Gt.linedashed_frag},depth:{uniforms:pi([_t.common,_t.displacementmap]),vertexShader:Gt.depth_vert,fragmentShader:Gt.depth_frag},normal:{uniforms:pi([_t.common,_t.bumpmap,_t.normalmap,_t.displacementmap,{opacity:{value:1}}]),vertexShader:Gt.meshnormal_vert,fragmentShader:Gt.meshnormal_frag},sprite:{uniforms:pi([_t.sprite,_t.fog]),vertexShader:Gt.sprite_vert,fragmentShader:Gt.sprite_frag},background:{uniforms:{uvTransform:{value:new Nt},t2D:{value:null},backgroundIntensity:{value:1}},vertexShader:Gt.background_vert,fragmentShader:Gt.background_frag},backgroundCube:{uniforms:{envMap:{value:null},backgroundBlurriness:{value:0},backgroundIntensity:{value:1},backgroundRotation:{value:new Nt}},vertexShader:Gt.backgroundCube_vert,fragmentShader:Gt.backgroundCube_frag},cube:{uniforms:{tCube:{value:null},tFlip:{value:-1},opacity:{value:1}},vertexShader:Gt.cube_vert,fragmentShader:Gt.cube_frag},equirect:{uniforms:{tEquirect:{value:null}},vertexShader:Gt.equirect_vert,fragmentShader:Gt.equirect_frag},distance:{uniforms:pi([_t.common,_t.displacementmap,{referencePosition:{value:new C},nearDistance:{value:1},farDistance:{value:1e3}}]),vertexShader:Gt.distance_vert,fragmentShader:Gt.distance_frag},shadow:{uniforms:pi([_t.lights,_t.fog,{color:{value:new Xt(0)},opacity:{value:1}}]),vertexShader:Gt.shadow_vert,fragmentShader:Gt.shadow_frag}};Mn.physical={uniforms:pi([Mn.standard.uniforms,{clearcoat:{value:0},clearcoatMap:{value:null},clearcoatMapTransform:{value:new Nt},clearcoatNormalMap:{value:null},clearcoatNormalMapTransform:{value:new Nt},clearcoatNormalScale:{value:new Tt(1,1)},clearcoatRoughness:{value:0},clearcoatRoughnessMap:{value:null},clearcoatRoughnessMapTransform:{value:new Nt},diffuseRoughness:{value:0},diffuseRoughnessMap:{value:null},diffuseRoughnessMapTransform:{value:new Nt},dispersion:{value:0},retroreflectivity:{value:0},iridescence:{value:0},iridescenceMap:{value:null},iridescenceMapTransform:{value:new Nt},iridescenceIOR:{value:1.3},iridescenceThicknessMinimum:{value:100},iridescenceThicknessMaximum:{value:400},iridescenceThicknessMap:{value:null},iridescenceThicknessMapTransform:{value:new Nt},sheen:{value:0},sheenColor:{value:new Xt(0)},sheenColorMap:{value:null},sheenColorMapTransform:{value:new Nt},sheenRoughness:{value:1},sheenRoughnessMap:{value:null},sheenRoughnessMapTransform:{value:new Nt},transmission:{value:0},transmissionMap:{value:null},transmissionMapTransform:{value:new Nt},transmissionSamplerSize:{value:new Tt},transmissionSamplerMap:{value:null},thickness:{value:0},thicknessMap:{value:null},thicknessMapTransform:{value:new Nt},attenuationDistance:{value:0},attenuationColor:{value:new Xt(0)},specularColor:{value:new Xt(1,1,1)},specularColorMap:{value:null},specularColorMapTransform:{value:new Nt},specularIntensity:{value:1},specularIntensityMap:{value:null},specularIntensityMapTransform:{value:new Nt},anisotropyVector:{value:new Tt},anisotropyMap:{value:null},anisotropyMapTransform:{value:new Nt}}]),vertexShader:Gt.meshphysical_vert,fragmentShader:Gt.meshphysical_frag};var Kc={r:0,b:0,g:0},Lb=new Vt,K_=new Nt;K_.set(-1,0,0,0,1,0,0,0,1);function Nb(e,t,i,n,s,r){let o=new Xt(0),a=s===!0?0:1,l,c,h=null,u=0,f=null;function d(y){let S=y.isScene===!0?y.background:null;if(S&&S.isTexture){let v=y.backgroundBlurriness>0;S=t.get(S,v)}return S}function g(y){let S=!1,v=d(y);v===null?p(o,a):v&&v.isColor&&(p(v,1),S=!0);let w=e.xr.getEnvironmentBlendMode();w==="additive"?i.buffers.color.setClear(0,0,0,1,r):w==="alpha-blend"&&i.buffers.color.setClear(0,0,0,0,r),(e.autoClear||S)&&(i.buffers.depth.setTest(!0),i.buffers.depth.setMask(!0),i.buffers.color.setMask(!0),e.clear(e.autoClearColor,e.autoClearDepth,e.autoClearStencil))}function x(y,S){let v=d(S);v&&v.isCubeTexture?(c===void 0&&(c=new pe(new Or(1,1,1),new qe({name:"BackgroundCubeMaterial",uniforms:js(Mn.backgroundCube.uniforms),vertexShader:Mn.backgroundCube.vertexShader,fragmentShader:Mn.backgroundCube.fragmentShader,side:oi,depthTest:!1,depthWrite:!1,fog:!1,allowOverride:!1})),c.geometry.deleteAttribute("normal"),c.geometry.deleteAttribute("uv"),c.onBeforeRender=function(w,T,_){this.matrixWorld.copyPosition(_.matrixWorld)},Object.defineProperty(c.material,"envMap",{get:function(){return this.uniforms.envMap.value}}),n.update(c)),c.material.uniforms.envMap.value=v,c.material.uniforms.backgroundBlurriness.value=S.backgroundBlurriness,c.material.uniforms.backgroundIntensity.value=S.backgroundIntensity,c.material.uniforms.backgroundRotation.value.setFromMatrix4(Lb.makeRotationFromEuler(S.backgroundRotation)).transpose(),v.isRenderTargetTexture===!1&&c.material.uniforms.backgroundRotation.value.premultiply(K_),c.material.toneMapped=Wt.getTransfer(v.colorSpace)!==le,(h!==v||u!==v.version||f!==e.toneMapping)&&(c.material.needsUpdate=!0,h=v,u=v.version,f=e.toneMapping),c.layers.enableAll(),y.unshift(c,c.geometry,c.material,0,0,null)):v&&v.isTexture&&(l===void 0&&(l=new pe(new $s(2,2),new qe({name:"BackgroundMaterial",uniforms:js(Mn.background.uniforms),vertexShader:Mn.background.vertexShader,fragmentShader:Mn.background.fragmentShader,side:di,depthTest:!1,depthWrite:!1,fog:!1,allowOverride:!1})),l.geometry.deleteAttribute("normal"),Object.defineProperty(l.material,"map",{get:function(){return this.uniforms.t2D.value}}),n.update(l)),l.material.uniforms.t2D.value=v,l.material.uniforms.backgroundIntensity.value=S.backgroundIntensity,l.material.toneMapped=Wt.getTransfer(v.colorSpace)!==le,v.matrixAutoUpdate===!0&&v.updateMatrix(),l.material.uniforms.uvTransform.value.copy(v.matrix),(h!==v||u!==v.version||f!==e.toneMapping)&&(l.material.needsUpdate=!0,h=v,u=v.version,f=e.toneMapping),l.layers.enableAll(),y.unshift(l,l.geometry,l.material,0,0,null))}function p(y,S){y.getRGB(Kc,ud(e)),i.buffers.color.setClear(Kc.r,Kc.g,Kc.b,S,r)}function m(){c!==void 0&&(c.geometry.dispose(),c.material.dispose(),c=void 0),l!==void 0&&(l.geometry.dispose(),l.material.dispose(),l=void 0)}return{getClearColor:function(){return o},setClearColor:function(y,S=1){o.set(y),a=S,p(o,a)},getClearAlpha:function(){return a},setClearAlpha:function(y){a=y,p(o,a)},render:g,addToRenderList:x,dispose:m}}function Db(e,t){let i=e.getParameter(e.MAX_VERTEX_ATTRIBS),n={},s=f(null),r=s,o=!1;function a(R,P,O,N,B){let V=!1,G=u(R,N,O,P);r!==G&&(r=G,c(r.object)),V=d(R,N,O,B),V&&g(R,N,O,B),B!==null&&t.update(B,e.ELEMENT_ARRAY_BUFFER),(V||o)&&(o=!1,v(R,P,O,N),B!==null&&e.bindBuffer(e.ELEMENT_ARRAY_BUFFER,t.get(B).buffer))}function l(){return e.createVertexArray()}function c(R){return e.bindVertexArray(R)}function h(R){return e.deleteVertexArray(R)}function u(R,P,O,N){let B=N.wireframe===!0,V=n[P.id];V===void 0&&(V={},n[P.id]=V);let G=R.isInstancedMesh===!0?R.id:0,tt=V[G];tt===void 0&&(tt={},V[G]=tt);let X=tt[O.id];X===void 0&&(X={},tt[O.id]=X);let j=X[B];return j===void 0&&(j=f(l()),X[B]=j),j}function f(R){let P=[],O=[],N=[];for(let B=0;B<i;B++)P[B]=0,O[B]=0,N[B]=0;return{geometry:null,program:null,wireframe:!1,newAttributes:P,enabledAttributes:O,attributeDivisors:N,object:R,attributes:{},index:null}}function d(R,P,O,N){let B=r.attributes,V=P.attributes,G=0,tt=O.getAttributes();for(let X in tt)if(tt[X].location>=0){let Q=B[X],vt=V[X];if(vt===void 0&&(X==="instanceMatrix"&&R.instanceMatrix&&(vt=R.instanceMatrix),X==="instanceColor"&&R.instanceColor&&(vt=R.instanceColor)),Q===void 0||Q.attribute!==vt||vt&&Q.data!==vt.data)return!0;G++}return r.attributesNum!==G||r.index!==N}function g(R,P,O,N){let B={},V=P.attributes,G=0,tt=O.getAttributes();for(let X in tt)if(tt[X].location>=0){let Q=V[X];Q===void 0&&(X==="instanceMatrix"&&R.instanceMatrix&&(Q=R.instanceMatrix),X==="instanceColor"&&R.instanceColor&&(Q=R.instanceColor));let vt={};vt.attribute=Q,Q&&Q.data&&(vt.data=Q.data),B[X]=vt,G++}r.attributes=B,r.attributesNum=G,r.index=N}function x(){let R=r.newAttributes;for(let P=0,O=R.length;P<O;P++)R[P]=0}function p(R){m(R,0)}function m(R,P){let O=r.newAttributes,N=r.enabledAttributes,B=r.attributeDivisors;O[R]=1,N[R]===0&&(e.enableVertexAttribArray(R),N[R]=1),B[R]!==P&&(e.vertexAttribDivisor(R,P),B[R]=P)}function y(){let R=r.newAttributes,P=r.enabledAttributes;for(let O=0,N=P.length;O<N;O++)P[O]!==R[O]&&(e.disableVertexAttribArray(O),P[O]=0)}function S(R,P,O,N,B,V,G){G===!0?e.vertexAttribIPointer(R,P,O,B,V):e.vertexAttribPointer(R,P,O,N,B,V)}function v(R,P,O,N){x();let B=N.attributes,V=O.getAttributes(),G=P.defaultAttributeValues;for(let tt in V){let X=V[tt];if(X.location>=0){let j=B[tt];if(j===void 0&&(tt==="instanceMatrix"&&R.instanceMatrix&&(j=R.instanceMatrix),tt==="instanceColor"&&R.instanceColor&&(j=R.instanceColor)),j!==void 0){let Q=j.normalized,vt=j.itemSize,Dt=t.get(j);if(Dt===void 0)continue;let K=Dt.buffer,ht=Dt.type,xt=Dt.bytesPerElement,Rt=ht===e.INT||ht===e.UNSIGNED_INT||j.gpuType===dc;if(j.isInterleavedBufferAttribute){let mt=j.data,Ot=mt.isInterleavedBuffer===!0?mt.stride:mt.itemSize,De=j.offset;if(mt.isInstancedInterleavedBuffer||mt.isInstancedBufferAttribute){for(let Pt=0;Pt<X.locationSize;Pt++)m(X.location+Pt,mt.meshPerAttribute);R.isInstancedMesh!==!0&&N._maxInstanceCount===void 0&&(N._maxInstanceCount=mt.meshPerAttribute*mt.count)}else for(let Pt=0;Pt<X.locationSize;Pt++)p(X.location+Pt);e.bindBuffer(e.ARRAY_BUFFER,K);for(let Pt=0;Pt<X.locationSize;Pt++)S(X.location+Pt,vt/X.locationSize,ht,Q,Ot*xt,(De+vt/X.locationSize*Pt)*xt,Rt)}else{if(j.isInstancedBufferAttribute){for(let mt=0;mt<X.locationSize;mt++)m(X.location+mt,j.meshPerAttribute);R.isInstancedMesh!==!0&&N._maxInstanceCount===void 0&&(N._maxInstanceCount=j.meshPerAttribute*j.count)}else for(let mt=0;mt<X.locationSize;mt++)p(X.location+mt);e.bindBuffer(e.ARRAY_BUFFER,K);for(let mt=0;mt<X.locationSize;mt++)S(X.location+mt,vt/X.locationSize,ht,Q,vt*xt,vt/X.locationSize*mt*xt,Rt)}}else if(G!==void 0){let Q=G[tt];if(Q!==void 0)switch(Q.length){case 2:e.vertexAttrib2fv(X.location,Q);break;case 3:e.vertexAttrib3fv(X.location,Q);break;case 4:e.vertexAttrib4fv(X.location,Q);break;default:e.vertexAttrib1fv(X.location,Q)}}}}y()}function w(){L();for(let R in n){let P=n[R];for(let O in P){let N=P[O];for(let B in N){let V=N[B];for(let G in V)h(V[G].object),delete V[G];delete N[B]}}delete n[R]}}function T(R){if(n[R.id]===void 0)return;let P=n[R.id];for(let O in P){let N=P[O];for(let B in N){let V=N[B];for(let G in V)h(V[G].object),delete V[G];delete N[B]}}delete n[R.id]}function _(R){for(let P in n){let O=n[P];for(let N in O){let B=O[N];if(B[R.id]===void 0)continue;let V=B[R.id];for(let G in V)h(V[G].object),delete V[G];delete B[R.id]}}}function M(R){for(let P in n){let O=n[P],N=R.isInstancedMesh===!0?R.id:0,B=O[N];if(B!==void 0){for(let V in B){let G=B[V];for(let tt in G)h(G[tt].object),delete G[tt];delete B[V]}delete O[N],Object.keys(O).length===0&&delete n[P]}}}function L(){A(),o=!0,r!==s&&(r=s,c(r.object))}function A(){s.geometry=null,s.program=null,s.wireframe=!1}return{setup:a,reset:L,resetDefaultState:A,dispose:w,releaseStatesOfGeometry:T,releaseStatesOfObject:M,releaseStatesOfProgram:_,initAttributes:x,enableAttribute:p,disableUnusedAttributes:y}}function Ob(e,t,i){let n;function s(l){n=l}function r(l,c){e.drawArrays(n,l,c),i.update(c,n,1)}function o(l,c,h){h!==0&&(e.drawArraysInstanced(n,l,c,h),i.update(c,n,h))}function a(l,c,h){if(h===0)return;t.get("WEBGL_multi_draw").multiDrawArraysWEBGL(n,l,0,c,0,h);let f=0;for(let d=0;d<h;d++)f+=c[d];i.update(f,n,1)}this.setMode=s,this.render=r,this.renderInstances=o,this.renderMultiDraw=a}function Ub(e,t,i,n){let s;function r(){if(s!==void 0)return s;if(t.has("EXT_texture_filter_anisotropic")===!0){let _=t.get("EXT_texture_filter_anisotropic");s=e.getParameter(_.MAX_TEXTURE_MAX_ANISOTROPY_EXT)}else s=0;return s}function o(_){return!(_!==hn&&n.convert(_)!==e.getParameter(e.IMPLEMENTATION_COLOR_READ_FORMAT))}function a(_){let M=_===cn&&(t.has("EXT_color_buffer_half_float")||t.has("EXT_color_buffer_float"));return!(_!==Bi&&_!==ln&&!M&&n.convert(_)!==e.getParameter(e.IMPLEMENTATION_COLOR_READ_TYPE))}function l(_){if(_==="highp"){if(e.getShaderPrecisionFormat(e.VERTEX_SHADER,e.HIGH_FLOAT).precision>0&&e.getShaderPrecisionFormat(e.FRAGMENT_SHADER,e.HIGH_FLOAT).precision>0)return"highp";_="mediump"}return _==="mediump"&&e.getShaderPrecisionFormat(e.VERTEX_SHADER,e.MEDIUM_FLOAT).precision>0&&e.getShaderPrecisionFormat(e.FRAGMENT_SHADER,e.MEDIUM_FLOAT).precision>0?"mediump":"lowp"}let c=i.precision!==void 0?i.precision:"highp",h=l(c);h!==c&&(Ct("WebGLRenderer:",c,"not supported, using",h,"instead."),c=h);let u=i.reversedDepthBuffer===!0&&t.has("EXT_clip_control"),f=i.logarithmicDepthBuffer===!0&&u===!1;i.reversedDepthBuffer===!0&&u===!1&&Ct("WebGLRenderer: Unable to use reversed depth buffer due to missing EXT_clip_control extension. Fallback to default depth buffer."),i.logarithmicDepthBuffer===!0&&u===!0&&Ct("WebGLRenderer: Logarithmic depth buffer is ignored when reversed depth buffer is enabled.");let d=e.getParameter(e.MAX_TEXTURE_IMAGE_UNITS),g=e.getParameter(e.MAX_VERTEX_TEXTURE_IMAGE_UNITS),x=e.getParameter(e.MAX_TEXTURE_SIZE),p=e.getParameter(e.MAX_CUBE_MAP_TEXTURE_SIZE),m=e.getParameter(e.MAX_VERTEX_ATTRIBS),y=e.getParameter(e.MAX_VERTEX_UNIFORM_VECTORS),S=e.getParameter(e.MAX_VARYING_VECTORS),v=e.getParameter(e.MAX_FRAGMENT_UNIFORM_VECTORS),w=e.getParameter(e.MAX_SAMPLES),T=e.getParameter(e.SAMPLES);return{isWebGL2:!0,getMaxAnisotropy:r,getMaxPrecision:l,textureFormatReadable:o,textureTypeReadable:a,precision:c,logarithmicDepthBuffer:f,reversedDepthBuffer:u,maxTextures:d,maxVertexTextures:g,maxTextureSize:x,maxCubemapSize:p,maxAttributes:m,maxVertexUniforms:y,maxVaryings:S,maxFragmentUniforms:v,maxSamples:w,samples:T}}function Fb(e){let t=this,i=null,n=0,s=!1,r=!1,o=new Be,a=new Nt,l={value:null,needsUpdate:!1};this.uniform=l,this.numPlanes=0,this.numIntersection=0,this.init=function(u,f){let d=u.length!==0||f||n!==0||s;return s=f,n=u.length,d},this.beginShadows=function(){r=!0,h(null)},this.endShadows=function(){r=!1},this.setGlobalState=function(u,f){i=h(u,f,0)},this.setState=function(u,f,d){let g=u.clippingPlanes,x=u.clipIntersection,p=u.clipShadows,m=e.get(u);if(!s||g===null||g.length===0||r&&!p)r?h(null):c();else{let y=r?0:n,S=y*4,v=m.clippingState||null;l.value=v,v=h(g,f,S,d);for(let w=0;w!==S;++w)v[w]=i[w];m.clippingState=v,this.numIntersection=x?this.numPlanes:0,this.numPlanes+=y}};function c(){l.value!==i&&(l.value=i,l.needsUpdate=n>0),t.numPlanes=n,t.numIntersection=0}function h(u,f,d,g){let x=u!==null?u.length:0,p=null;if(x!==0){if(p=l.value,g!==!0||p===null){let m=d+x*4,y=f.matrixWorldInverse;a.getNormalMatrix(y),(p===null||p.length<m)&&(p=new Float32Array(m));for(let S=0,v=d;S!==x;++S,v+=4)o.copy(u[S]).applyMatrix4(y,a),o.normal.toArray(p,v),p[v+3]=o.constant}l.value=p,l.needsUpdate=!0}return t.numPlanes=x,t.numIntersection=0,p}}var ga=class extends vi{constructor(t=1,i={}){super(t,t,i),this.isWebGLCubeRenderTarget=!0;let n={width:t,height:t,depth:1},s=[n,n,n,n,n,n];this.texture=new Jo(s),this._setTextureOptions(i),this.texture.isRenderTargetTexture=!0}fromEquirectangularTexture(t,i){this.texture.type=i.type,this.texture.colorSpace=i.colorSpace,this.texture.generateMipmaps=i.generateMipmaps,this.texture.minFilter=i.minFilter,this.texture.magFilter=i.magFilter;let n={uniforms:{tEquirect:{value:null}},vertexShader:`

				varying vec3 vWorldDirection;

				vec3 transformDirection( in vec3 dir, in mat4 matrix ) {

					return normalize( ( matrix * vec4( dir, 0.0 ) ).xyz );

				}

				void main() {

					vWorldDirection = transformDirection( position, modelMatrix );

					#include <begin_vertex>
					#include <project_vertex>

				}
			`,fragmentShader:`

				uniform sampler2D tEquirect;

				varying vec3 vWorldDirection;

				#include <common>

				void main() {

					vec3 direction = normalize( vWorldDirection );

					vec2 sampleUV = equirectUv( direction );

					gl_FragColor = texture2D( tEquirect, sampleUV );

				}
			`},s=new Or(5,5,5),r=new qe({name:"CubemapFromEquirect",uniforms:js(n.uniforms),vertexShader:n.vertexShader,fragmentShader:n.fragmentShader,side:oi,blending:Ys});r.uniforms.tEquirect.value=i;let o=new pe(s,r),a=i.minFilter;return i.minFilter===Wn&&(i.minFilter=xi),new Ur(1,10,this).update(t,o),i.minFilter=a,o.geometry.dispose(),o.material.dispose(),this}clear(t,i=!0,n=!0,s=!0){let r=t.getRenderTarget();for(let o=0;o<6;o++)t.setRenderTarget(this,o),t.clear(i,n,s);t.setRenderTarget(r)}},A_=256,Bb=3,kb=20,Z_=256,J_=16,zb=3,Hb=new C,Vb=new Xt,Jc=class e{constructor(t){this._renderer=t,this._cubeSize=0,this._sourceTarget=null,this._cubeCamera=new Ur(1,10,null),this._boxMesh=new pe(new Or(5,5,5),null),this._cubemapMaterial=null,this._equirectMaterial=null,this._blurMaterial=null,this._ggxMaterial=null,this._integrationMaterial=null}fromScene(t,i=0,n=.1,s=100,r={}){let{size:o=256,position:a=Hb}=r,l=this._renderer;this._setSize(o);let c=this._allocateTarget(),h=this._getSourceTarget(!0);i>0&&(h.texture.mipmapsAutoUpdate=!1);let u=l.autoClear,f=l.autoClearColor,d=l.autoClearDepth,g=l.autoClearStencil,x=t.background;l.autoClear=!0,l.autoClearColor=!0,l.autoClearDepth=!0,l.autoClearStencil=!0,x===null&&(t.background=l.getClearColor(Vb));let p=new Ur(n,s,h);return p.position.copy(a),p.update(l,t),l.autoClear=u,l.autoClearColor=f,l.autoClearDepth=d,l.autoClearStencil=g,t.background=x,i>0&&(h.texture.mipmapsAutoUpdate=!0,this._blur(c,i)),this._applyPMREM(c),c}fromEquirectangular(t,i=null){return this._fromTexture(t,i)}fromCubemap(t,i=null){return this._fromTexture(t,i)}compileCubemapShader(){this._cubemapMaterial===null&&(this._cubemapMaterial=P_(),this._compileMaterial(this._cubemapMaterial))}compileEquirectangularShader(){this._equirectMaterial===null&&(this._equirectMaterial=C_(),this._compileMaterial(this._equirectMaterial))}dispose(){this._sourceTarget!==null&&this._sourceTarget.dispose(),this._cubemapMaterial!==null&&this._cubemapMaterial.dispose(),this._equirectMaterial!==null&&this._equirectMaterial.dispose(),this._blurMaterial!==null&&this._blurMaterial.dispose(),this._ggxMaterial!==null&&this._ggxMaterial.dispose(),this._integrationMaterial!==null&&this._integrationMaterial.dispose(),this._boxMesh.geometry.dispose()}static lodToRoughness(t,i){return i>0?1-Math.sqrt(1-t/i):0}_setSize(t){this._cubeSize=Math.max(A_,ld(t))}_fromTexture(t,i){t.mapping===Zs||t.mapping===zr?this._setSize(t.image.length===0?A_:t.image[0].width||t.image[0].image.width):this._setSize(t.image.width/4);let n=i||this._allocateTarget();return this._textureToCubemap(t),this._applyPMREM(n),n}_allocateTarget(){let t=this._cubeSize,i=R_(t,!1,!1),n=Math.log2(t)-Bb;for(let s=0;s<=n;s++)i.texture.mipmaps.push({width:t>>s,height:t>>s});return i.texture.name="PMREM",i.texture.isPMREMTexture=!0,i}_getSourceTarget(t=!1){let i=this._cubeSize,n=this._sourceTarget;return(n===null||n.width!==i||t&&n.depthBuffer===!1)&&(n!==null&&n.dispose(),this._sourceTarget=R_(i,!0,t)),this._sourceTarget}_compileMaterial(t){this._boxMesh.material=t,this._renderer.compile(this._boxMesh,this._cubeCamera.children[0])}_renderCube(t,i,n){let s=this._boxMesh,r=this._cubeCamera;s.material=n,r.renderTarget=t,r.activeMipmapLevel=i;let o=t.width>>i;t.viewport.set(0,0,o,o),r.update(this._renderer,s),t.viewport.set(0,0,t.width,t.height)}_textureToCubemap(t){let i;t.mapping===Zs||t.mapping===zr?(this._cubemapMaterial===null&&(this._cubemapMaterial=P_()),i=this._cubemapMaterial,i.uniforms.flipEnvMap.value=t.isRenderTargetTexture===!1?-1:1):(this._equirectMaterial===null&&(this._equirectMaterial=C_()),i=this._equirectMaterial),i.uniforms.envMap.value=t,this._renderCube(this._getSourceTarget(),0,i)}_applyPMREM(t){this._ggxMaterial===null&&(this._ggxMaterial=Gb(),this._integrationMaterial=Wb());let i=this._cubeSize,n=t.texture.mipmaps.length-1,s=this._ggxMaterial.uniforms;s.envMap.value=this._sourceTarget.texture;let r=this._integrationMaterial.uniforms;r.envMap.value=this._sourceTarget.texture,r.sourceLod.value=Math.log2(i/J_);for(let o=0;o<=n;o++){let a=e.lodToRoughness(o,n);if(o>n-zb)r.roughness.value=a,this._renderCube(t,o,this._integrationMaterial);else{let l=a>0?Math.log2(i)+.5*Math.log2(6/(Z_*Math.pow(a,4)))+.5:0;s.roughness.value=a,s.lodBias.value=l,this._renderCube(t,o,this._ggxMaterial)}}}_blur(t,i){this._blurMaterial===null&&(this._blurMaterial=Xb());let n=this._blurMaterial,s=n.uniforms,r=this._sourceTarget;s.sigma.value=Math.min(i,Math.PI)/Math.SQRT2,s.envMap.value=r.texture,this._renderCube(t,0,n),s.envMap.value=t.texture,this._renderCube(r,0,n)}};function R_(e,t,i){return new ga(e,{minFilter:Wn,generateMipmaps:t,type:cn,colorSpace:Vs,depthBuffer:i})}function _a(e,t,i){return new qe({name:e,uniforms:t,vertexShader:Gt.cube_vert,fragmentShader:i,side:oi,blending:Ys,depthTest:!1,depthWrite:!1})}function Gb(){return _a("PMREMGGXConvolution",{envMap:{value:null},roughness:{value:0},lodBias:{value:0}},`

		#define GGX_SAMPLES ${Z_}u

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float roughness;
		uniform float lodBias;

		#include <common>

		// Van der Corput radical inverse
		float radicalInverse_VdC( uint bits ) {

			bits = ( bits << 16u ) | ( bits >> 16u );
			bits = ( ( bits & 0x55555555u ) << 1u ) | ( ( bits & 0xAAAAAAAAu ) >> 1u );
			bits = ( ( bits & 0x33333333u ) << 2u ) | ( ( bits & 0xCCCCCCCCu ) >> 2u );
			bits = ( ( bits & 0x0F0F0F0Fu ) << 4u ) | ( ( bits & 0xF0F0F0F0u ) >> 4u );
			bits = ( ( bits & 0x00FF00FFu ) << 8u ) | ( ( bits & 0xFF00FF00u ) >> 8u );
			return float( bits ) * 2.3283064365386963e-10; // / 0x100000000

		}

		// Hammersley sequence
		vec2 hammersley( uint i, uint N ) {

			return vec2( float( i ) / float( N ), radicalInverse_VdC( i ) );

		}

		void main() {

			vec3 N = normalize( vWorldDirection );

			// For very low roughness, just sample the environment directly
			if ( roughness < 0.001 ) {

				gl_FragColor = vec4( textureLod( envMap, N, 0.0 ).rgb, 1.0 );
				return;

			}

			float alpha = roughness * roughness;
			float alpha2 = alpha * alpha;

			// Tangent space basis for VNDF sampling
			vec3 up = abs( N.z ) < 0.999 ? vec3( 0.0, 0.0, 1.0 ) : vec3( 1.0, 0.0, 0.0 );
			vec3 tangent = normalize( cross( up, N ) );
			vec3 bitangent = cross( N, tangent );

			vec3 prefilteredColor = vec3( 0.0 );
			float totalWeight = 0.0;

			for ( uint i = 0u; i < GGX_SAMPLES; i ++ ) {

				vec2 Xi = hammersley( i, GGX_SAMPLES );

				// With V = N, sample the reflected direction directly.
				float invQ = 1.0 / ( 1.0 - Xi.x + alpha2 * Xi.x );
				float NdotL = ( 1.0 - Xi.x - alpha2 * Xi.x ) * invQ;

				if ( NdotL > 0.0 ) {

					float phi = 2.0 * PI * Xi.y;
					float sinTheta = 2.0 * alpha * sqrt( Xi.x * ( 1.0 - Xi.x ) ) * invQ;
					vec3 L = N * NdotL + ( tangent * cos( phi ) + bitangent * sin( phi ) ) * sinTheta;

					// Match the source mip to the sample's solid angle. The terms
					// independent of the sample are precomputed in lodBias.
					float d = alpha2 * invQ;
					float lod = max( log2( d ) + lodBias, 0.0 );

					// Weight by NdotL for the split-sum approximation
					prefilteredColor += textureLod( envMap, L, lod ).rgb * NdotL;
					totalWeight += NdotL;

				}

			}

			gl_FragColor = vec4( prefilteredColor / totalWeight, 1.0 );

		}
	`)}function Wb(){return _a("PMREMGGXIntegration",{envMap:{value:null},roughness:{value:0},sourceLod:{value:0},sourceSize:{value:J_}},`

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float roughness;
		uniform float sourceLod;
		uniform int sourceSize;

		void main() {

			vec3 N = normalize( vWorldDirection );

			float alpha = roughness * roughness;
			float alpha2 = alpha * alpha;

			float texelSize = 2.0 / float( sourceSize );

			vec3 prefilteredColor = vec3( 0.0 );
			float totalWeight = 0.0;

			// Pair opposite texels: only the one in N's hemisphere contributes.
			for ( int face = 0; face < 3; face ++ ) {

				for ( int y = 0; y < sourceSize; y ++ ) {

					for ( int x = 0; x < sourceSize; x ++ ) {

						vec2 uv = ( vec2( x, y ) + 0.5 ) * texelSize - 1.0;
						vec3 texelDirection = face == 0 ? vec3( 1.0, uv ) : ( face == 1 ? vec3( uv.x, 1.0, uv.y ) : vec3( uv, 1.0 ) );

						float invDistance = inversesqrt( 1.0 + dot( uv, uv ) );
						float NdotL = dot( N, texelDirection );
						texelDirection *= NdotL < 0.0 ? - 1.0 : 1.0;
						NdotL = abs( NdotL ) * invDistance;

						// With V = N, NdotH squared is ( 1 + NdotL ) / 2. Common factors
						// in the GGX distribution and texel solid angle cancel when normalized.
						float d = 1.0 + alpha2 + ( alpha2 - 1.0 ) * NdotL;
						float weight = NdotL * invDistance * invDistance * invDistance / ( d * d );

						prefilteredColor += textureLod( envMap, texelDirection, sourceLod ).rgb * weight;
						totalWeight += weight;

					}

				}

			}

			gl_FragColor = vec4( prefilteredColor / totalWeight, 1.0 );

		}
	`)}function Xb(){return _a("PMREMSphericalGaussianBlur",{envMap:{value:null},sigma:{value:0}},`

		#define SAMPLES ${kb}
		#define GOLDEN_ANGLE 2.39996322973

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float sigma;

		#include <common>

		void main() {

			vec3 outputDirection = normalize( vWorldDirection );

			vec3 up = abs( outputDirection.z ) < 0.999 ? vec3( 0.0, 0.0, 1.0 ) : vec3( 1.0, 0.0, 0.0 );
			vec3 tangent = normalize( cross( up, outputDirection ) );
			vec3 bitangent = cross( outputDirection, tangent );

			// Truncate the kernel at three standard deviations or at the antipode.
			float thetaMax = min( 3.0 * sigma, PI );
			float truncation = 1.0 - exp( - 0.5 * thetaMax * thetaMax / ( sigma * sigma ) );

			vec3 accumColor = vec3( 0.0 );
			float accumWeight = 0.0;

			for ( int i = 0; i < SAMPLES; i ++ ) {

				// Stratified inverse-CDF sampling of the Gaussian, placed on a golden-angle spiral.
				float stratum = ( float( i ) + 0.5 ) / float( SAMPLES );
				float theta = sigma * sqrt( - 2.0 * log( 1.0 - stratum * truncation ) );
				float phi = float( i ) * GOLDEN_ANGLE;

				vec3 offset = cos( phi ) * tangent + sin( phi ) * bitangent;
				vec3 sampleDirection = cos( theta ) * outputDirection + sin( theta ) * offset;

				// Correct the planar sample density to solid angle.
				float weight = sin( theta ) / theta;

				accumColor += weight * textureLod( envMap, sampleDirection, 0.0 ).rgb;
				accumWeight += weight;

			}

			gl_FragColor = vec4( accumColor / accumWeight, 1.0 );

		}
	`)}function C_(){return _a("PMREMEquirectangularToCubemap",{envMap:{value:null}},`

		varying vec3 vWorldDirection;

		uniform sampler2D envMap;

		#include <common>

		void main() {

			// Average four subpixel samples to preserve small, bright features.
			vec3 direction = normalize( vWorldDirection );
			vec3 dx = dFdx( direction ) * 0.25;
			vec3 dy = dFdy( direction ) * 0.25;

			vec3 color = textureLod( envMap, equirectUv( normalize( direction - dx - dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction + dx - dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction - dx + dy ) ), 0.0 ).rgb;
			color += textureLod( envMap, equirectUv( normalize( direction + dx + dy ) ), 0.0 ).rgb;
			gl_FragColor = vec4( color * 0.25, 1.0 );

		}
	`)}function P_(){return _a("PMREMCubemapToCubemap",{envMap:{value:null},flipEnvMap:{value:-1}},`

		varying vec3 vWorldDirection;

		uniform samplerCube envMap;
		uniform float flipEnvMap;

		void main() {

			gl_FragColor = vec4( textureCube( envMap, vec3( flipEnvMap * vWorldDirection.x, vWorldDirection.yz ) ).rgb, 1.0 );

		}
	`)}function $b(e){let t=new WeakMap,i=new WeakMap,n=null;function s(f,d=!1){return f==null?null:d?o(f):r(f)}function r(f){if(f&&f.isTexture){let d=f.mapping;if(d===hc||d===uc)if(t.has(f)){let g=t.get(f).texture;return a(g,f.mapping)}else{let g=f.image;if(g&&g.height>0){let x=new ga(g.height);return x.fromEquirectangularTexture(e,f),t.set(f,x),f.addEventListener("dispose",c),a(x.texture,f.mapping)}else return null}}return f}function o(f){if(f&&f.isTexture&&f.isPMREMTexture!==!0){let d=f.mapping,g=d===hc||d===uc,x=d===Zs||d===zr;if(g||x){let p=i.get(f),m=p!==void 0?p.texture.pmremVersion:0;if(f.isRenderTargetTexture&&f.pmremVersion!==m)return n===null&&(n=new Jc(e)),p=g?n.fromEquirectangular(f,p):n.fromCubemap(f,p),p.texture.pmremVersion=f.pmremVersion,i.set(f,p),p.texture;if(p!==void 0)return p.texture;{let y=f.image;return g&&y&&y.height>0||x&&y&&l(y)?(n===null&&(n=new Jc(e)),p=g?n.fromEquirectangular(f):n.fromCubemap(f),p.texture.pmremVersion=f.pmremVersion,i.set(f,p),f.addEventListener("dispose",h),p.texture):null}}}return f}function a(f,d){return d===hc?f.mapping=Zs:d===uc&&(f.mapping=zr),f}function l(f){let d=0,g=6;for(let x=0;x<g;x++)f[x]!==void 0&&d++;return d===g}function c(f){let d=f.target;d.removeEventListener("dispose",c);let g=t.get(d);g!==void 0&&(t.delete(d),g.dispose())}function h(f){let d=f.target;d.removeEventListener("dispose",h);let g=i.get(d);g!==void 0&&(i.delete(d),g.dispose())}function u(){t=new WeakMap,i=new WeakMap,n!==null&&(n.dispose(),n=null)}return{get:s,dispose:u}}function qb(e){let t={};function i(n){if(t[n]!==void 0)return t[n];let s=e.getExtension(n);return t[n]=s,s}return{has:function(n){return i(n)!==null},init:function(){i("EXT_color_buffer_float"),i("WEBGL_clip_cull_distance"),i("OES_texture_float_linear"),i("EXT_color_buffer_half_float"),i("WEBGL_multisampled_render_to_texture"),i("WEBGL_render_shared_exponent")},get:function(n){let s=i(n);return s===null&&Ho("WebGLRenderer: "+n+" extension not supported."),s}}}function Yb(e,t,i,n){let s={},r=new WeakMap,o=new FinalizationRegistry(g=>delete s[g]);function a(g){l(g.target)}function l(g){g.index!==null&&t.remove(g.index);for(let p in g.attributes)t.remove(g.attributes[p]);g.removeEventListener("dispose",a),delete s[g.id],o.unregister(g);let x=r.get(g);x&&(t.remove(x),r.delete(g)),n.releaseStatesOfGeometry(g),g.isInstancedBufferGeometry===!0&&delete g._maxInstanceCount,i.memory.geometries--}function c(g,x){return s[x.id]!==void 0||(x.addEventListener("dispose",a),s[x.id]=new WeakRef(x),o.register(x,x.id,x),i.memory.geometries++),x}function h(g){let x=g.attributes;for(let p in x)t.update(x[p],e.ARRAY_BUFFER)}function u(g){let x=g.index,p=g.attributes.position,m=0;if(p===void 0)return;let y=x!==null?x.array.length:p.array.length/3-1,S=p.count>=65535?Ko:Yo,v=new S(Math.ceil(y/3)*6,1),w=v.array;if(x!==null){let _=x.array;m=x.version;for(let M=0,L=0;M<y;M+=3){let A=_[M+0],R=_[M+1],P=_[M+2];w[L++]=A,w[L++]=R,w[L++]=R,w[L++]=P,w[L++]=P,w[L++]=A}}else{m=p.version;for(let _=0,M=0;_<y;_+=3){let L=_+0,A=_+1,R=_+2;w[M++]=L,w[M++]=A,w[M++]=A,w[M++]=R,w[M++]=R,w[M++]=L}}v.version=m;let T=r.get(g);T&&t.remove(T),r.set(g,v)}function f(g){let x=r.get(g);if(x){let p=g.index;p!==null&&x.version<p.version&&u(g)}else u(g);return r.get(g)}function d(){for(let g in s){let x=s[g].deref();x!==void 0&&l(x)}}return{get:c,update:h,getWireframeAttribute:f,dispose:d}}function Kb(e,t,i){let n;function s(u){n=u}let r,o;function a(u){r=u.type,o=u.bytesPerElement}function l(u,f){e.drawElements(n,f,r,u*o),i.update(f,n,1)}function c(u,f,d){d!==0&&(e.drawElementsInstanced(n,f,r,u*o,d),i.update(f,n,d))}function h(u,f,d){if(d===0)return;t.get("WEBGL_multi_draw").multiDrawElementsWEBGL(n,f,0,r,u,0,d);let x=0;for(let p=0;p<d;p++)x+=f[p];i.update(x,n,1)}this.setMode=s,this.setIndex=a,this.render=l,this.renderInstances=c,this.renderMultiDraw=h}function Zb(e){let t={geometries:0,textures:0},i={frame:0,calls:0,triangles:0,points:0,lines:0};function n(r,o,a){switch(i.calls++,o){case e.TRIANGLES:i.triangles+=a*(r/3);break;case e.LINES:i.lines+=a*(r/2);break;case e.LINE_STRIP:i.lines+=a*(r-1);break;case e.LINE_LOOP:i.lines+=a*r;break;case e.POINTS:i.points+=a*r;break;default:Lt("WebGLInfo: Unknown draw mode:",o);break}}function s(){i.calls=0,i.triangles=0,i.points=0,i.lines=0}return{memory:t,render:i,programs:null,autoReset:!0,reset:s,update:n}}function Jb(e,t,i){let n=new WeakMap,s=new be;function r(o,a,l){let c=o.morphTargetInfluences,h=a.morphAttributes.position||a.morphAttributes.normal||a.morphAttributes.color,u=h!==void 0?h.length:0,f=n.get(a);if(f===void 0||f.count!==u){let L=function(){_.dispose(),n.delete(a),a.removeEventListener("dispose",L)};f!==void 0&&f.texture.dispose();let d=a.morphAttributes.position!==void 0,g=a.morphAttributes.normal!==void 0,x=a.morphAttributes.color!==void 0,p=a.morphAttributes.position||[],m=a.morphAttributes.normal||[],y=a.morphAttributes.color||[],S=0;d===!0&&(S=1),g===!0&&(S=2),x===!0&&(S=3);let v=a.attributes.position.count*S,w=1;v>t.maxTextureSize&&(w=Math.ceil(v/t.maxTextureSize),v=t.maxTextureSize);let T=new Float32Array(v*w*4*u),_=new qo(T,v,w,u);_.type=ln,_.needsUpdate=!0;let M=S*4;for(let A=0;A<u;A++){let R=p[A],P=m[A],O=y[A],N=v*w*4*A;for(let B=0;B<R.count;B++){let V=B*M;d===!0&&(s.fromBufferAttribute(R,B),T[N+V+0]=s.x,T[N+V+1]=s.y,T[N+V+2]=s.z,T[N+V+3]=0),g===!0&&(s.fromBufferAttribute(P,B),T[N+V+4]=s.x,T[N+V+5]=s.y,T[N+V+6]=s.z,T[N+V+7]=0),x===!0&&(s.fromBufferAttribute(O,B),T[N+V+8]=s.x,T[N+V+9]=s.y,T[N+V+10]=s.z,T[N+V+11]=O.itemSize===4?s.w:1)}}f={count:u,texture:_,size:new Tt(v,w)},n.set(a,f),a.addEventListener("dispose",L)}if(o.isInstancedMesh===!0&&o.morphTexture!==null)l.getUniforms().setValue(e,"morphTexture",o.morphTexture,i);else{let d=0;for(let x=0;x<c.length;x++)d+=c[x];let g=a.morphTargetsRelative?1:1-d;l.getUniforms().setValue(e,"morphTargetBaseInfluence",g),l.getUniforms().setValue(e,"morphTargetInfluences",c)}l.getUniforms().setValue(e,"morphTargetsTexture",f.texture,i),l.getUniforms().setValue(e,"morphTargetsTextureSize",f.size)}return{update:r}}function jb(e,t,i,n,s){let r=new WeakMap;function o(c){let h=s.render.frame,u=c.geometry,f=t.get(c,u);if(r.get(f)!==h&&(t.update(f),r.set(f,h)),c.isInstancedMesh&&(c.hasEventListener("dispose",l)===!1&&c.addEventListener("dispose",l),r.get(c)!==h&&(i.update(c.instanceMatrix,e.ARRAY_BUFFER),c.instanceColor!==null&&i.update(c.instanceColor,e.ARRAY_BUFFER),r.set(c,h))),c.isSkinnedMesh){let d=c.skeleton;r.get(d)!==h&&(d.update(),r.set(d,h))}return f}function a(){r=new WeakMap}function l(c){let h=c.target;h.removeEventListener("dispose",l),n.releaseStatesOfObject(h),i.remove(h.instanceMatrix),h.instanceColor!==null&&i.remove(h.instanceColor)}return{update:o,dispose:a}}var Qb={[kf]:"LINEAR_TONE_MAPPING",[zf]:"REINHARD_TONE_MAPPING",[Hf]:"CINEON_TONE_MAPPING",[Vf]:"ACES_FILMIC_TONE_MAPPING",[Wf]:"AGX_TONE_MAPPING",[Xf]:"NEUTRAL_TONE_MAPPING",[Gf]:"CUSTOM_TONE_MAPPING"};function tT(e,t,i,n,s,r){let o=new vi(t,i,{type:e,depthBuffer:s,stencilBuffer:r,samples:n?4:0,storeMultisampledDepthBuffer:!1,storeMultisampledStencilBuffer:!1,resolveDepthBuffer:!1,resolveStencilBuffer:!1}),a=null,l=null,c=null,h=new Jt;h.setAttribute("position",new ei([-1,3,0,-1,-1,0,3,-1,0],3)),h.setAttribute("uv",new ei([0,2,0,0,2,0],2));let u=new Zl({uniforms:{tDiffuse:{value:null}},vertexShader:`
			precision highp float;

			uniform mat4 modelViewMatrix;
			uniform mat4 projectionMatrix;

			attribute vec3 position;
			attribute vec2 uv;

			varying vec2 vUv;

			void main() {
				vUv = uv;
				gl_Position = projectionMatrix * modelViewMatrix * vec4( position, 1.0 );
			}`,fragmentShader:`
			precision highp float;

			uniform sampler2D tDiffuse;

			varying vec2 vUv;

			#include <tonemapping_pars_fragment>
			#include <colorspace_pars_fragment>

			void main() {
				gl_FragColor = texture2D( tDiffuse, vUv );

				#ifdef LINEAR_TONE_MAPPING
					gl_FragColor.rgb = LinearToneMapping( gl_FragColor.rgb );
				#elif defined( REINHARD_TONE_MAPPING )
					gl_FragColor.rgb = ReinhardToneMapping( gl_FragColor.rgb );
				#elif defined( CINEON_TONE_MAPPING )
					gl_FragColor.rgb = CineonToneMapping( gl_FragColor.rgb );
				#elif defined( ACES_FILMIC_TONE_MAPPING )
					gl_FragColor.rgb = ACESFilmicToneMapping( gl_FragColor.rgb );
				#elif defined( AGX_TONE_MAPPING )
					gl_FragColor.rgb = AgXToneMapping( gl_FragColor.rgb );
				#elif defined( NEUTRAL_TONE_MAPPING )
					gl_FragColor.rgb = NeutralToneMapping( gl_FragColor.rgb );
				#elif defined( CUSTOM_TONE_MAPPING )
					gl_FragColor.rgb = CustomToneMapping( gl_FragColor.rgb );
				#endif

				#ifdef SRGB_TRANSFER
					gl_FragColor = sRGBTransferOETF( gl_FragColor );
				#endif
			}`,depthTest:!1,depthWrite:!1}),f=new pe(h,u),d=new qs(-1,1,1,-1,0,1),g=null,x=null,p=!1,m,y=null,S=[],v=!1;this.setSize=function(w,T){o.setSize(w,T),a!==null&&a.setSize(w,T),l!==null&&l.setSize(w,T);for(let _=0;_<S.length;_++){let M=S[_];M.setSize&&M.setSize(w,T)}},this.setEffects=function(w){S=w,v=S.length>0&&S[0].isRenderPass===!0;let T=o.width,_=o.height;S.length>0&&a===null&&(a=new vi(T,_,{type:cn,depthBuffer:!1,stencilBuffer:!1}),l=new vi(T,_,{type:cn,depthBuffer:!1,stencilBuffer:!1}));let M=s===!0&&S.some(L=>L.needsDepthTexture===!0);M!==(o.depthTexture!==null)&&(M===!0&&c===null&&(c=new Gn(T,_),r===!0&&(c.format=Xn,c.type=Js)),o.dispose(),o.depthTexture=M?c:null,o.resolveDepthBuffer=M,o.storeMultisampledDepthBuffer=M);for(let L=0;L<S.length;L++){let A=S[L];A.setSize&&A.setSize(T,_),M&&A.needsDepthTexture===!0&&A.setDepthTexture&&A.setDepthTexture(c)}},this.begin=function(w,T){if(p||w.toneMapping===Sn&&S.length===0)return!1;if(y=T,T!==null){let _=T.width,M=T.height;(o.width!==_||o.height!==M)&&this.setSize(_,M)}return v===!1&&w.setRenderTarget(o),m=w.toneMapping,w.toneMapping=Sn,!0},this.hasRenderPass=function(){return v},this.end=function(w,T){w.toneMapping=m,p=!0;let _=o,M=a;for(let L=0;L<S.length;L++){let A=S[L];A.enabled!==!1&&(A.render(w,M,_,T),A.needsSwap!==!1&&(_=M,M=M===a?l:a))}if(g!==w.outputColorSpace||x!==w.toneMapping){g=w.outputColorSpace,x=w.toneMapping,u.defines={},Wt.getTransfer(g)===le&&(u.defines.SRGB_TRANSFER="");let L=Qb[x];L&&(u.defines[L]=""),u.needsUpdate=!0}u.uniforms.tDiffuse.value=_.texture,w.setRenderTarget(y),w.render(f,d),y=null,p=!1},this.isCompositing=function(){return p},this.dispose=function(){o.dispose(),a!==null&&a.dispose(),l!==null&&l.dispose(),h.dispose(),u.dispose()}}var j_=new Ei,Q_=new Gn(1,1),t0=new jo(1),e0=new qo,i0=new Xl,n0=new Jo,I_=[],L_=[],N_=new Float32Array(16),D_=new Float32Array(9),O_=new Float32Array(4);function Wr(e,t,i){let n=e[0];if(n<=0||n>0)return e;let s=t*i,r=I_[s];if(r===void 0&&(r=new Float32Array(s),I_[s]=r),t!==0){n.toArray(r,0);for(let o=1,a=0;o!==t;++o)a+=i,e[o].toArray(r,a)}return r}function Ye(e,t){if(e.length!==t.length)return!1;for(let i=0,n=e.length;i<n;i++)if(e[i]!==t[i])return!1;return!0}function Ke(e,t){for(let i=0,n=t.length;i<n;i++)e[i]=t[i]}function th(e,t){let i=L_[t];i===void 0&&(i=new Int32Array(t),L_[t]=i);for(let n=0;n!==t;++n)i[n]=e.allocateTextureUnit();return i}function eT(e,t){let i=this.cache;i[0]!==t&&(e.uniform1f(this.addr,t),i[0]=t)}function iT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y)&&(e.uniform2f(this.addr,t.x,t.y),i[0]=t.x,i[1]=t.y);else{if(Ye(i,t))return;e.uniform2fv(this.addr,t),Ke(i,t)}}function nT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z)&&(e.uniform3f(this.addr,t.x,t.y,t.z),i[0]=t.x,i[1]=t.y,i[2]=t.z);else if(t.r!==void 0)(i[0]!==t.r||i[1]!==t.g||i[2]!==t.b)&&(e.uniform3f(this.addr,t.r,t.g,t.b),i[0]=t.r,i[1]=t.g,i[2]=t.b);else{if(Ye(i,t))return;e.uniform3fv(this.addr,t),Ke(i,t)}}function sT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z||i[3]!==t.w)&&(e.uniform4f(this.addr,t.x,t.y,t.z,t.w),i[0]=t.x,i[1]=t.y,i[2]=t.z,i[3]=t.w);else{if(Ye(i,t))return;e.uniform4fv(this.addr,t),Ke(i,t)}}function rT(e,t){let i=this.cache,n=t.elements;if(n===void 0){if(Ye(i,t))return;e.uniformMatrix2fv(this.addr,!1,t),Ke(i,t)}else{if(Ye(i,n))return;O_.set(n),e.uniformMatrix2fv(this.addr,!1,O_),Ke(i,n)}}function oT(e,t){let i=this.cache,n=t.elements;if(n===void 0){if(Ye(i,t))return;e.uniformMatrix3fv(this.addr,!1,t),Ke(i,t)}else{if(Ye(i,n))return;D_.set(n),e.uniformMatrix3fv(this.addr,!1,D_),Ke(i,n)}}function aT(e,t){let i=this.cache,n=t.elements;if(n===void 0){if(Ye(i,t))return;e.uniformMatrix4fv(this.addr,!1,t),Ke(i,t)}else{if(Ye(i,n))return;N_.set(n),e.uniformMatrix4fv(this.addr,!1,N_),Ke(i,n)}}function lT(e,t){let i=this.cache;i[0]!==t&&(e.uniform1i(this.addr,t),i[0]=t)}function cT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y)&&(e.uniform2i(this.addr,t.x,t.y),i[0]=t.x,i[1]=t.y);else{if(Ye(i,t))return;e.uniform2iv(this.addr,t),Ke(i,t)}}function hT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z)&&(e.uniform3i(this.addr,t.x,t.y,t.z),i[0]=t.x,i[1]=t.y,i[2]=t.z);else{if(Ye(i,t))return;e.uniform3iv(this.addr,t),Ke(i,t)}}function uT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z||i[3]!==t.w)&&(e.uniform4i(this.addr,t.x,t.y,t.z,t.w),i[0]=t.x,i[1]=t.y,i[2]=t.z,i[3]=t.w);else{if(Ye(i,t))return;e.uniform4iv(this.addr,t),Ke(i,t)}}function fT(e,t){let i=this.cache;i[0]!==t&&(e.uniform1ui(this.addr,t),i[0]=t)}function dT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y)&&(e.uniform2ui(this.addr,t.x,t.y),i[0]=t.x,i[1]=t.y);else{if(Ye(i,t))return;e.uniform2uiv(this.addr,t),Ke(i,t)}}function pT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z)&&(e.uniform3ui(this.addr,t.x,t.y,t.z),i[0]=t.x,i[1]=t.y,i[2]=t.z);else{if(Ye(i,t))return;e.uniform3uiv(this.addr,t),Ke(i,t)}}function mT(e,t){let i=this.cache;if(t.x!==void 0)(i[0]!==t.x||i[1]!==t.y||i[2]!==t.z||i[3]!==t.w)&&(e.uniform4ui(this.addr,t.x,t.y,t.z,t.w),i[0]=t.x,i[1]=t.y,i[2]=t.z,i[3]=t.w);else{if(Ye(i,t))return;e.uniform4uiv(this.addr,t),Ke(i,t)}}function eh(e){return e.version===0&&(e.compareFunction=nd,e.needsUpdate=!0),e}function gT(e,t,i){let n=this.cache,s=i.allocateTextureUnit();n[0]!==s&&(e.uniform1i(this.addr,s),n[0]=s);let r;this.type===e.SAMPLER_2D_SHADOW?r=eh(Q_):r=j_,i.setTexture2D(t||r,s)}function _T(e,t,i){let n=this.cache,s=i.allocateTextureUnit();n[0]!==s&&(e.uniform1i(this.addr,s),n[0]=s),i.setTexture3D(t||i0,s)}function yT(e,t,i){let n=this.cache,s=i.allocateTextureUnit();n[0]!==s&&(e.uniform1i(this.addr,s),n[0]=s);let r;this.type===e.SAMPLER_CUBE_SHADOW?r=eh(t0):r=n0,i.setTextureCube(t||r,s)}function xT(e,t,i){let n=this.cache,s=i.allocateTextureUnit();n[0]!==s&&(e.uniform1i(this.addr,s),n[0]=s),i.setTexture2DArray(t||e0,s)}function vT(e){switch(e){case 5126:return eT;case 35664:return iT;case 35665:return nT;case 35666:return sT;case 35674:return rT;case 35675:return oT;case 35676:return aT;case 5124:case 35670:return lT;case 35667:case 35671:return cT;case 35668:case 35672:return hT;case 35669:case 35673:return uT;case 5125:return fT;case 36294:return dT;case 36295:return pT;case 36296:return mT;case 35678:case 36198:case 36298:case 36306:case 35682:return gT;case 35679:case 36299:case 36307:return _T;case 35680:case 36300:case 36308:case 36293:return yT;case 36289:case 36303:case 36311:case 36292:return xT}}function ST(e,t){e.uniform1fv(this.addr,t)}function wT(e,t){let i=Wr(t,this.size,2);e.uniform2fv(this.addr,i)}function MT(e,t){let i=Wr(t,this.size,3);e.uniform3fv(this.addr,i)}function bT(e,t){let i=Wr(t,this.size,4);e.uniform4fv(this.addr,i)}function TT(e,t){let i=Wr(t,this.size,4);e.uniformMatrix2fv(this.addr,!1,i)}function ET(e,t){let i=Wr(t,this.size,9);e.uniformMatrix3fv(this.addr,!1,i)}function AT(e,t){let i=Wr(t,this.size,16);e.uniformMatrix4fv(this.addr,!1,i)}function RT(e,t){e.uniform1iv(this.addr,t)}function CT(e,t){e.uniform2iv(this.addr,t)}function PT(e,t){e.uniform3iv(this.addr,t)}function IT(e,t){e.uniform4iv(this.addr,t)}function LT(e,t){e.uniform1uiv(this.addr,t)}function NT(e,t){e.uniform2uiv(this.addr,t)}function DT(e,t){e.uniform3uiv(this.addr,t)}function OT(e,t){e.uniform4uiv(this.addr,t)}function UT(e,t,i){let n=this.cache,s=t.length,r=th(i,s);Ye(n,r)||(e.uniform1iv(this.addr,r),Ke(n,r));let o;this.type===e.SAMPLER_2D_SHADOW?o=eh(Q_):o=j_;for(let a=0;a!==s;++a)i.setTexture2D(t[a]||o,r[a])}function FT(e,t,i){let n=this.cache,s=t.length,r=th(i,s);Ye(n,r)||(e.uniform1iv(this.addr,r),Ke(n,r));for(let o=0;o!==s;++o)i.setTexture3D(t[o]||i0,r[o])}function BT(e,t,i){let n=this.cache,s=t.length,r=th(i,s);Ye(n,r)||(e.uniform1iv(this.addr,r),Ke(n,r));let o;this.type===e.SAMPLER_CUBE_SHADOW?o=eh(t0):o=n0;for(let a=0;a!==s;++a)i.setTextureCube(t[a]||o,r[a])}function kT(e,t,i){let n=this.cache,s=t.length,r=th(i,s);Ye(n,r)||(e.uniform1iv(this.addr,r),Ke(n,r));for(let o=0;o!==s;++o)i.setTexture2DArray(t[o]||e0,r[o])}function zT(e){switch(e){case 5126:return ST;case 35664:return wT;case 35665:return MT;case 35666:return bT;case 35674:return TT;case 35675:return ET;case 35676:return AT;case 5124:case 35670:return RT;case 35667:case 35671:return CT;case 35668:case 35672:return PT;case 35669:case 35673:return IT;case 5125:return LT;case 36294:return NT;case 36295:return DT;case 36296:return OT;case 35678:case 36198:case 36298:case 36306:case 35682:return UT;case 35679:case 36299:case 36307:return FT;case 35680:case 36300:case 36308:case 36293:return BT;case 36289:case 36303:case 36311:case 36292:return kT}}var _d=class{constructor(t,i,n){this.id=t,this.addr=n,this.cache=[],this.type=i.type,this.setValue=vT(i.type)}},yd=class{constructor(t,i,n){this.id=t,this.addr=n,this.cache=[],this.type=i.type,this.size=i.size,this.setValue=zT(i.type)}},xd=class{constructor(t){this.id=t,this.seq=[],this.map={}}setValue(t,i,n){let s=this.seq;for(let r=0,o=s.length;r!==o;++r){let a=s[r];a.setValue(t,i[a.id],n)}}},md=/(\w+)(\])?(\[|\.)?/g;function U_(e,t){e.seq.push(t),e.map[t.id]=t}function HT(e,t,i){let n=e.name,s=n.length;for(md.lastIndex=0;;){let r=md.exec(n),o=md.lastIndex,a=r[1],l=r[2]==="]",c=r[3];if(l&&(a=a|0),c===void 0||c==="["&&o+2===s){U_(i,c===void 0?new _d(a,e,t):new yd(a,e,t));break}else{let u=i.map[a];u===void 0&&(u=new xd(a),U_(i,u)),i=u}}}var Gr=class{constructor(t,i){this.seq=[],this.map={};let n=t.getProgramParameter(i,t.ACTIVE_UNIFORMS);for(let o=0;o<n;++o){let a=t.getActiveUniform(i,o),l=t.getUniformLocation(i,a.name);HT(a,l,this)}let s=[],r=[];for(let o of this.seq)o.type===t.SAMPLER_2D_SHADOW||o.type===t.SAMPLER_CUBE_SHADOW||o.type===t.SAMPLER_2D_ARRAY_SHADOW?s.push(o):r.push(o);s.length>0&&(this.seq=s.concat(r))}setValue(t,i,n,s){let r=this.map[i];r!==void 0&&r.setValue(t,n,s)}setOptional(t,i,n){let s=i[n];s!==void 0&&this.setValue(t,n,s)}static upload(t,i,n,s){for(let r=0,o=i.length;r!==o;++r){let a=i[r],l=n[a.id];l.needsUpdate!==!1&&a.setValue(t,l.value,s)}}static seqWithValue(t,i){let n=[];for(let s=0,r=t.length;s!==r;++s){let o=t[s];o.id in i&&n.push(o)}return n}};function F_(e,t,i){let n=e.createShader(t);return e.shaderSource(n,i),e.compileShader(n),n}var VT=37297,GT=0;function WT(e,t){let i=e.split(`
`),n=[],s=Math.max(t-6,0),r=Math.min(t+6,i.length);for(let o=s;o<r;o++){let a=o+1;n.push(`${a===t?">":" "} ${a}: ${i[o]}`)}return n.join(`
`)}var B_=new Nt;function XT(e){Wt._getMatrix(B_,Wt.workingColorSpace,e);let t=`mat3( ${B_.elements.map(i=>i.toFixed(4))} )`;switch(Wt.getTransfer(e)){case Wo:return[t,"LinearTransferOETF"];case le:return[t,"sRGBTransferOETF"];default:return Ct("WebGLProgram: Unsupported color space: ",e),[t,"LinearTransferOETF"]}}function k_(e,t,i){let n=e.getShaderParameter(t,e.COMPILE_STATUS),r=(e.getShaderInfoLog(t)||"").trim();if(n&&r==="")return"";let o=/ERROR: 0:(\d+)/.exec(r);if(o){let a=parseInt(o[1]);return i.toUpperCase()+`

`+r+`

`+WT(e.getShaderSource(t),a)}else return r}function $T(e,t){let i=XT(t);return[`vec4 ${e}( vec4 value ) {`,`	return ${i[1]}( vec4( ${i[0]} * value.rgb, value.a ) );`,"}"].join(`
`)}var qT={[kf]:"Linear",[zf]:"Reinhard",[Hf]:"Cineon",[Vf]:"ACESFilmic",[Wf]:"AgX",[Xf]:"Neutral",[Gf]:"Custom"};function YT(e,t){let i=qT[t];return i===void 0?(Ct("WebGLProgram: Unsupported toneMapping:",t),"vec3 "+e+"( vec3 color ) { return LinearToneMapping( color ); }"):"vec3 "+e+"( vec3 color ) { return "+i+"ToneMapping( color ); }"}var Zc=new C;function KT(){Wt.getLuminanceCoefficients(Zc);let e=Zc.x.toFixed(4),t=Zc.y.toFixed(4),i=Zc.z.toFixed(4);return["float luminance( const in vec3 rgb ) {",`	const vec3 weights = vec3( ${e}, ${t}, ${i} );`,"	return dot( weights, rgb );","}"].join(`
`)}function ZT(e){return[e.extensionClipCullDistance?"#extension GL_ANGLE_clip_cull_distance : require":"",e.extensionMultiDraw?"#extension GL_ANGLE_multi_draw : require":""].filter(ma).join(`
`)}function JT(e){let t=[];for(let i in e){let n=e[i];n!==!1&&t.push("#define "+i+" "+n)}return t.join(`
`)}function jT(e,t){let i={},n=e.getProgramParameter(t,e.ACTIVE_ATTRIBUTES);for(let s=0;s<n;s++){let r=e.getActiveAttrib(t,s),o=r.name,a=1;r.type===e.FLOAT_MAT2&&(a=2),r.type===e.FLOAT_MAT3&&(a=3),r.type===e.FLOAT_MAT4&&(a=4),i[o]={type:r.type,location:e.getAttribLocation(t,o),locationSize:a}}return i}function ma(e){return e!==""}function z_(e,t){let i=t.numSpotLightShadows+t.numSpotLightMaps-t.numSpotLightShadowsWithMaps;return e.replace(/NUM_SUN_LIGHTS/g,t.numSunLights).replace(/NUM_DIR_LIGHTS/g,t.numDirLights).replace(/NUM_SPOT_LIGHTS/g,t.numSpotLights).replace(/NUM_SPOT_LIGHT_MAPS/g,t.numSpotLightMaps).replace(/NUM_SPOT_LIGHT_COORDS/g,i).replace(/NUM_RECT_AREA_LIGHTS/g,t.numRectAreaLights).replace(/NUM_POINT_LIGHTS/g,t.numPointLights).replace(/NUM_HEMI_LIGHTS/g,t.numHemiLights).replace(/NUM_SUN_LIGHT_SHADOWS/g,t.numSunLightShadows).replace(/NUM_DIR_LIGHT_SHADOWS/g,t.numDirLightShadows).replace(/NUM_SPOT_LIGHT_SHADOWS_WITH_MAPS/g,t.numSpotLightShadowsWithMaps).replace(/NUM_SPOT_LIGHT_SHADOWS/g,t.numSpotLightShadows).replace(/NUM_POINT_LIGHT_SHADOWS/g,t.numPointLightShadows).replace(/NUM_LIGHT_PROBE_GRIDS/g,t.numLightProbeGrids)}function H_(e,t){return e.replace(/NUM_CLIPPING_PLANES/g,t.numClippingPlanes).replace(/UNION_CLIPPING_PLANES/g,t.numClippingPlanes-t.numClipIntersection)}var QT=/^[ \t]*#include +<([\w\d./]+)>/gm;function vd(e){return e.replace(QT,tE)}function tE(e,t){let i=Gt[t];if(i===void 0)throw new Error("THREE.WebGLProgram: Can not resolve #include <"+t+">");return vd(i)}var eE=/#pragma unroll_loop_start\s+for\s*\(\s*int\s+i\s*=\s*(\d+)\s*;\s*i\s*<\s*(\d+)\s*;\s*i\s*\+\+\s*\)\s*{([\s\S]+?)}\s+#pragma unroll_loop_end/g;function V_(e){return e.replace(eE,iE)}function iE(e,t,i,n){let s="";for(let r=parseInt(t);r<parseInt(i);r++)s+=n.replace(/\[\s*i\s*\]/g,"[ "+r+" ]").replace(/UNROLLED_LOOP_INDEX/g,r);return s}function G_(e){let t=`precision ${e.precision} float;
	precision ${e.precision} int;
	precision ${e.precision} sampler2D;
	precision ${e.precision} samplerCube;
	precision ${e.precision} sampler3D;
	precision ${e.precision} sampler2DArray;
	precision ${e.precision} sampler2DShadow;
	precision ${e.precision} samplerCubeShadow;
	precision ${e.precision} sampler2DArrayShadow;
	precision ${e.precision} isampler2D;
	precision ${e.precision} isampler3D;
	precision ${e.precision} isamplerCube;
	precision ${e.precision} isampler2DArray;
	precision ${e.precision} usampler2D;
	precision ${e.precision} usampler3D;
	precision ${e.precision} usamplerCube;
	precision ${e.precision} usampler2DArray;
	`;return e.precision==="highp"?t+=`
#define HIGH_PRECISION`:e.precision==="mediump"?t+=`
#define MEDIUM_PRECISION`:e.precision==="lowp"&&(t+=`
#define LOW_PRECISION`),t}var nE={[oa]:"SHADOWMAP_TYPE_PCF",[Br]:"SHADOWMAP_TYPE_VSM"};function sE(e){return nE[e.shadowMapType]||"SHADOWMAP_TYPE_BASIC"}var rE={[zr]:"ENVMAP_MODE_REFRACTION"};function oE(e){return e.envMap===!1?"ENVMAP_MODE_REFLECTION":rE[e.envMapMode]||"ENVMAP_MODE_REFLECTION"}var aE={[Bf]:"ENVMAP_BLENDING_MULTIPLY",[r_]:"ENVMAP_BLENDING_MIX",[o_]:"ENVMAP_BLENDING_ADD"};function lE(e){return e.envMap===!1?"ENVMAP_BLENDING_NONE":aE[e.combine]||"ENVMAP_BLENDING_NONE"}function cE(e,t,i,n){let s=e.getContext(),r=i.defines,o=i.vertexShader,a=i.fragmentShader,l=sE(i),c=i.envMapPMREM===!0?"ENVMAP_TYPE_PMREM":"ENVMAP_TYPE_CUBE",h=oE(i),u=lE(i),f=ZT(i),d=JT(r),g=s.createProgram(),x,p,m=i.glslVersion?"#version "+i.glslVersion+`
`:"";i.isRawShaderMaterial?(x=["#define SHADER_TYPE "+i.shaderType,"#define SHADER_NAME "+i.shaderName,d].filter(ma).join(`
`),x.length>0&&(x+=`
`),p=["#define SHADER_TYPE "+i.shaderType,"#define SHADER_NAME "+i.shaderName,d].filter(ma).join(`
`),p.length>0&&(p+=`
`)):(x=[G_(i),"#define SHADER_TYPE "+i.shaderType,"#define SHADER_NAME "+i.shaderName,d,i.extensionClipCullDistance?"#define USE_CLIP_DISTANCE":"",i.batching?"#define USE_BATCHING":"",i.batchingColor?"#define USE_BATCHING_COLOR":"",i.instancing?"#define USE_INSTANCING":"",i.instancingColor?"#define USE_INSTANCING_COLOR":"",i.instancingMorph?"#define USE_INSTANCING_MORPH":"",i.useFog&&i.fog?"#define USE_FOG":"",i.useFog&&i.fogExp2?"#define FOG_EXP2":"",i.map?"#define USE_MAP":"",i.envMap?"#define USE_ENVMAP":"",i.envMap?"#define "+h:"",i.lightMap?"#define USE_LIGHTMAP":"",i.aoMap?"#define USE_AOMAP":"",i.bumpMap?"#define USE_BUMPMAP":"",i.normalMap?"#define USE_NORMALMAP":"",i.normalMapObjectSpace?"#define USE_NORMALMAP_OBJECTSPACE":"",i.normalMapTangentSpace?"#define USE_NORMALMAP_TANGENTSPACE":"",i.displacementMap?"#define USE_DISPLACEMENTMAP":"",i.emissiveMap?"#define USE_EMISSIVEMAP":"",i.anisotropy?"#define USE_ANISOTROPY":"",i.anisotropyMap?"#define USE_ANISOTROPYMAP":"",i.clearcoatMap?"#define USE_CLEARCOATMAP":"",i.clearcoatRoughnessMap?"#define USE_CLEARCOAT_ROUGHNESSMAP":"",i.clearcoatNormalMap?"#define USE_CLEARCOAT_NORMALMAP":"",i.diffuseRoughnessMap?"#define USE_DIFFUSE_ROUGHNESSMAP":"",i.iridescenceMap?"#define USE_IRIDESCENCEMAP":"",i.iridescenceThicknessMap?"#define USE_IRIDESCENCE_THICKNESSMAP":"",i.specularMap?"#define USE_SPECULARMAP":"",i.specularColorMap?"#define USE_SPECULAR_COLORMAP":"",i.specularIntensityMap?"#define USE_SPECULAR_INTENSITYMAP":"",i.roughnessMap?"#define USE_ROUGHNESSMAP":"",i.metalnessMap?"#define USE_METALNESSMAP":"",i.alphaMap?"#define USE_ALPHAMAP":"",i.alphaHash?"#define USE_ALPHAHASH":"",i.transmission?"#define USE_TRANSMISSION":"",i.transmissionMap?"#define USE_TRANSMISSIONMAP":"",i.thicknessMap?"#define USE_THICKNESSMAP":"",i.sheenColorMap?"#define USE_SHEEN_COLORMAP":"",i.sheenRoughnessMap?"#define USE_SHEEN_ROUGHNESSMAP":"",i.mapUv?"#define MAP_UV "+i.mapUv:"",i.alphaMapUv?"#define ALPHAMAP_UV "+i.alphaMapUv:"",i.lightMapUv?"#define LIGHTMAP_UV "+i.lightMapUv:"",i.aoMapUv?"#define AOMAP_UV "+i.aoMapUv:"",i.emissiveMapUv?"#define EMISSIVEMAP_UV "+i.emissiveMapUv:"",i.bumpMapUv?"#define BUMPMAP_UV "+i.bumpMapUv:"",i.normalMapUv?"#define NORMALMAP_UV "+i.normalMapUv:"",i.displacementMapUv?"#define DISPLACEMENTMAP_UV "+i.displacementMapUv:"",i.metalnessMapUv?"#define METALNESSMAP_UV "+i.metalnessMapUv:"",i.roughnessMapUv?"#define ROUGHNESSMAP_UV "+i.roughnessMapUv:"",i.anisotropyMapUv?"#define ANISOTROPYMAP_UV "+i.anisotropyMapUv:"",i.clearcoatMapUv?"#define CLEARCOATMAP_UV "+i.clearcoatMapUv:"",i.clearcoatNormalMapUv?"#define CLEARCOAT_NORMALMAP_UV "+i.clearcoatNormalMapUv:"",i.clearcoatRoughnessMapUv?"#define CLEARCOAT_ROUGHNESSMAP_UV "+i.clearcoatRoughnessMapUv:"",i.diffuseRoughnessMapUv?"#define DIFFUSE_ROUGHNESSMAP_UV "+i.diffuseRoughnessMapUv:"",i.iridescenceMapUv?"#define IRIDESCENCEMAP_UV "+i.iridescenceMapUv:"",i.iridescenceThicknessMapUv?"#define IRIDESCENCE_THICKNESSMAP_UV "+i.iridescenceThicknessMapUv:"",i.sheenColorMapUv?"#define SHEEN_COLORMAP_UV "+i.sheenColorMapUv:"",i.sheenRoughnessMapUv?"#define SHEEN_ROUGHNESSMAP_UV "+i.sheenRoughnessMapUv:"",i.specularMapUv?"#define SPECULARMAP_UV "+i.specularMapUv:"",i.specularColorMapUv?"#define SPECULAR_COLORMAP_UV "+i.specularColorMapUv:"",i.specularIntensityMapUv?"#define SPECULAR_INTENSITYMAP_UV "+i.specularIntensityMapUv:"",i.transmissionMapUv?"#define TRANSMISSIONMAP_UV "+i.transmissionMapUv:"",i.thicknessMapUv?"#define THICKNESSMAP_UV "+i.thicknessMapUv:"",i.vertexTangents&&i.flatShading===!1?"#define USE_TANGENT":"",i.vertexNormals?"#define HAS_NORMAL":"",i.vertexColors?"#define USE_COLOR":"",i.vertexAlphas?"#define USE_COLOR_ALPHA":"",i.vertexUv1s?"#define USE_UV1":"",i.vertexUv2s?"#define USE_UV2":"",i.vertexUv3s?"#define USE_UV3":"",i.pointsUvs?"#define USE_POINTS_UV":"",i.flatShading?"#define FLAT_SHADED":"",i.skinning?"#define USE_SKINNING":"",i.morphTargets?"#define USE_MORPHTARGETS":"",i.morphNormals&&i.flatShading===!1?"#define USE_MORPHNORMALS":"",i.morphColors?"#define USE_MORPHCOLORS":"",i.morphTargetsCount>0?"#define MORPHTARGETS_TEXTURE_STRIDE "+i.morphTextureStride:"",i.morphTargetsCount>0?"#define MORPHTARGETS_COUNT "+i.morphTargetsCount:"",i.doubleSided?"#define DOUBLE_SIDED":"",i.flipSided?"#define FLIP_SIDED":"",i.shadowMapEnabled?"#define USE_SHADOWMAP":"",i.shadowMapEnabled?"#define "+l:"",i.sizeAttenuation?"#define USE_SIZEATTENUATION":"",i.numLightProbes>0?"#define USE_LIGHT_PROBES":"",i.logarithmicDepthBuffer?"#define USE_LOGARITHMIC_DEPTH_BUFFER":"",i.reversedDepthBuffer?"#define USE_REVERSED_DEPTH_BUFFER":"","uniform mat4 modelMatrix;","uniform mat4 modelViewMatrix;","uniform mat4 projectionMatrix;","uniform mat4 viewMatrix;","uniform mat3 normalMatrix;","uniform vec3 cameraPosition;","uniform bool isOrthographic;","#ifdef USE_INSTANCING","	attribute mat4 instanceMatrix;","#endif","#ifdef USE_INSTANCING_COLOR","	attribute vec3 instanceColor;","#endif","#ifdef USE_INSTANCING_MORPH","	uniform sampler2D morphTexture;","#endif","attribute vec3 position;","attribute vec3 normal;","attribute vec2 uv;","#ifdef USE_UV1","	attribute vec2 uv1;","#endif","#ifdef USE_UV2","	attribute vec2 uv2;","#endif","#ifdef USE_UV3","	attribute vec2 uv3;","#endif","#ifdef USE_TANGENT","	attribute vec4 tangent;","#endif","#if defined( USE_COLOR_ALPHA )","	attribute vec4 color;","#elif defined( USE_COLOR )","	attribute vec3 color;","#endif","#ifdef USE_SKINNING","	attribute vec4 skinIndex;","	attribute vec4 skinWeight;","#endif",`
`].filter(ma).join(`
`),p=[G_(i),"#define SHADER_TYPE "+i.shaderType,"#define SHADER_NAME "+i.shaderName,d,i.useFog&&i.fog?"#define USE_FOG":"",i.useFog&&i.fogExp2?"#define FOG_EXP2":"",i.alphaToCoverage?"#define ALPHA_TO_COVERAGE":"",i.map?"#define USE_MAP":"",i.matcap?"#define USE_MATCAP":"",i.envMap?"#define USE_ENVMAP":"",i.envMap?"#define "+c:"",i.envMap?"#define "+h:"",i.envMap?"#define "+u:"",i.envMapPMREM?"#define ENVMAP_MAX_LOD "+i.envMapMaxLod+".0":"",i.envMapPMREM?"#define ENVMAP_SIZE "+i.envMapSize+".0":"",i.lightMap?"#define USE_LIGHTMAP":"",i.aoMap?"#define USE_AOMAP":"",i.bumpMap?"#define USE_BUMPMAP":"",i.normalMap?"#define USE_NORMALMAP":"",i.normalMapObjectSpace?"#define USE_NORMALMAP_OBJECTSPACE":"",i.normalMapTangentSpace?"#define USE_NORMALMAP_TANGENTSPACE":"",i.packedNormalMap?"#define USE_PACKED_NORMALMAP":"",i.emissiveMap?"#define USE_EMISSIVEMAP":"",i.anisotropy?"#define USE_ANISOTROPY":"",i.anisotropyMap?"#define USE_ANISOTROPYMAP":"",i.clearcoat?"#define USE_CLEARCOAT":"",i.clearcoatMap?"#define USE_CLEARCOATMAP":"",i.clearcoatRoughnessMap?"#define USE_CLEARCOAT_ROUGHNESSMAP":"",i.clearcoatNormalMap?"#define USE_CLEARCOAT_NORMALMAP":"",i.diffuseRoughness?"#define USE_DIFFUSE_ROUGHNESS":"",i.diffuseRoughnessMap?"#define USE_DIFFUSE_ROUGHNESSMAP":"",i.dispersion?"#define USE_DISPERSION":"",i.retroreflection?"#define USE_RETROREFLECTION":"",i.iridescence?"#define USE_IRIDESCENCE":"",i.iridescenceMap?"#define USE_IRIDESCENCEMAP":"",i.iridescenceThicknessMap?"#define USE_IRIDESCENCE_THICKNESSMAP":"",i.specularMap?"#define USE_SPECULARMAP":"",i.specularColorMap?"#define USE_SPECULAR_COLORMAP":"",i.specularIntensityMap?"#define USE_SPECULAR_INTENSITYMAP":"",i.roughnessMap?"#define USE_ROUGHNESSMAP":"",i.metalnessMap?"#define USE_METALNESSMAP":"",i.alphaMap?"#define USE_ALPHAMAP":"",i.alphaTest?"#define USE_ALPHATEST":"",i.alphaHash?"#define USE_ALPHAHASH":"",i.sheen?"#define USE_SHEEN":"",i.sheenColorMap?"#define USE_SHEEN_COLORMAP":"",i.sheenRoughnessMap?"#define USE_SHEEN_ROUGHNESSMAP":"",i.transmission?"#define USE_TRANSMISSION":"",i.transmissionMap?"#define USE_TRANSMISSIONMAP":"",i.thicknessMap?"#define USE_THICKNESSMAP":"",i.vertexTangents&&i.flatShading===!1?"#define USE_TANGENT":"",i.vertexColors||i.instancingColor?"#define USE_COLOR":"",i.vertexAlphas||i.batchingColor?"#define USE_COLOR_ALPHA":"",i.vertexUv1s?"#define USE_UV1":"",i.vertexUv2s?"#define USE_UV2":"",i.vertexUv3s?"#define USE_UV3":"",i.pointsUvs?"#define USE_POINTS_UV":"",i.gradientMap?"#define USE_GRADIENTMAP":"",i.flatShading?"#define FLAT_SHADED":"",i.doubleSided?"#define DOUBLE_SIDED":"",i.flipSided?"#define FLIP_SIDED":"",i.shadowMapEnabled?"#define USE_SHADOWMAP":"",i.shadowMapEnabled?"#define "+l:"",i.premultipliedAlpha?"#define PREMULTIPLIED_ALPHA":"",i.numLightProbes>0?"#define USE_LIGHT_PROBES":"",i.decodeVideoTexture?"#define DECODE_VIDEO_TEXTURE":"",i.decodeVideoTextureEmissive?"#define DECODE_VIDEO_TEXTURE_EMISSIVE":"",i.logarithmicDepthBuffer?"#define USE_LOGARITHMIC_DEPTH_BUFFER":"",i.reversedDepthBuffer?"#define USE_REVERSED_DEPTH_BUFFER":"","uniform mat4 viewMatrix;","uniform vec3 cameraPosition;","uniform bool isOrthographic;",i.toneMapping!==Sn?"#define TONE_MAPPING":"",i.toneMapping!==Sn?Gt.tonemapping_pars_fragment:"",i.toneMapping!==Sn?YT("toneMapping",i.toneMapping):"",i.dithering?"#define DITHERING":"",i.opaque?"#define OPAQUE":"",Gt.colorspace_pars_fragment,$T("linearToOutputTexel",i.outputColorSpace),KT(),i.useDepthPacking?"#define DEPTH_PACKING "+i.depthPacking:"",`
`].filter(ma).join(`
`)),o=vd(o),o=z_(o,i),o=H_(o,i),a=vd(a),a=z_(a,i),a=H_(a,i),o=V_(o),a=V_(a),i.isRawShaderMaterial!==!0&&(m=`#version 300 es
`,x=[f,"#define attribute in","#define varying out","#define texture2D texture"].join(`
`)+`
`+x,p=["#define varying in",i.glslVersion===rd?"":"layout(location = 0) out highp vec4 pc_fragColor;",i.glslVersion===rd?"":"#define gl_FragColor pc_fragColor","#define gl_FragDepthEXT gl_FragDepth","#define texture2D texture","#define textureCube texture","#define texture2DProj textureProj","#define texture2DLodEXT textureLod","#define texture2DProjLodEXT textureProjLod","#define textureCubeLodEXT textureLod","#define texture2DGradEXT textureGrad","#define texture2DProjGradEXT textureProjGrad","#define textureCubeGradEXT textureGrad"].join(`
`)+`
`+p);let y=m+x+o,S=m+p+a,v=F_(s,s.VERTEX_SHADER,y),w=F_(s,s.FRAGMENT_SHADER,S);s.attachShader(g,v),s.attachShader(g,w),i.index0AttributeName!==void 0?s.bindAttribLocation(g,0,i.index0AttributeName):i.hasPositionAttribute===!0&&s.bindAttribLocation(g,0,"position"),s.linkProgram(g);function T(A){if(e.debug.checkShaderErrors){let R=s.getProgramInfoLog(g)||"",P=s.getShaderInfoLog(v)||"",O=s.getShaderInfoLog(w)||"",N=R.trim(),B=P.trim(),V=O.trim(),G=!0,tt=!0;if(s.getProgramParameter(g,s.LINK_STATUS)===!1)if(G=!1,typeof e.debug.onShaderError=="function")e.debug.onShaderError(s,g,v,w);else{let X=k_(s,v,"vertex"),j=k_(s,w,"fragment");Lt("WebGLProgram: Shader Error "+s.getError()+" - VALIDATE_STATUS "+s.getProgramParameter(g,s.VALIDATE_STATUS)+`

Material Name: `+A.name+`
Material Type: `+A.type+`

Program Info Log: `+N+`
`+X+`
`+j)}else N!==""?Ct("WebGLProgram: Program Info Log:",N):(B===""||V==="")&&(tt=!1);tt&&(A.diagnostics={runnable:G,programLog:N,vertexShader:{log:B,prefix:x},fragmentShader:{log:V,prefix:p}})}s.deleteShader(v),s.deleteShader(w),_=new Gr(s,g),M=jT(s,g)}let _;this.getUniforms=function(){return _===void 0&&T(this),_};let M;this.getAttributes=function(){return M===void 0&&T(this),M};let L=i.rendererExtensionParallelShaderCompile===!1;return this.isReady=function(){return L===!1&&(L=s.getProgramParameter(g,VT)),L},this.destroy=function(){n.releaseStatesOfProgram(this),s.deleteProgram(g),this.program=void 0},this.type=i.shaderType,this.name=i.shaderName,this.id=GT++,this.cacheKey=t,this.usedTimes=1,this.program=g,this.vertexShader=v,this.fragmentShader=w,this}var hE=0,Sd=class{constructor(){this.shaderCache=new Map,this.materialCache=new Map}update(t,i,n){let s=this._getShaderCacheForMaterial(t);return s.has(i)===!1&&(s.add(i),i.usedTimes++),s.has(n)===!1&&(s.add(n),n.usedTimes++),this}remove(t){let i=this.materialCache.get(t);for(let n of i)n.usedTimes--,n.usedTimes===0&&this.shaderCache.delete(n.code);return this.materialCache.delete(t),this}getVertexShaderStage(t){return this._getShaderStage(t.vertexShader)}getFragmentShaderStage(t){return this._getShaderStage(t.fragmentShader)}dispose(){this.shaderCache.clear(),this.materialCache.clear()}_getShaderCacheForMaterial(t){let i=this.materialCache,n=i.get(t);return n===void 0&&(n=new Set,i.set(t,n)),n}_getShaderStage(t){let i=this.shaderCache,n=i.get(t);return n===void 0&&(n=new wd(t),i.set(t,n)),n}},wd=class{constructor(t){this.id=hE++,this.code=t,this.usedTimes=0}};function uE(e){return e===fs||e===fa||e===da}function fE(e,t,i,n,s,r){let o=new Lr,a=new Sd,l=new Set,c=[],h=new Map,u=n.logarithmicDepthBuffer,f={MeshDepthMaterial:"depth",MeshDistanceMaterial:"distance",MeshNormalMaterial:"normal",MeshBasicMaterial:"basic",MeshLambertMaterial:"lambert",MeshPhongMaterial:"phong",MeshToonMaterial:"toon",MeshStandardMaterial:"physical",MeshPhysicalMaterial:"physical",MeshMatcapMaterial:"matcap",LineBasicMaterial:"basic",LineDashedMaterial:"dashed",PointsMaterial:"points",ShadowMaterial:"shadow",SpriteMaterial:"sprite"};function d(_){return l.add(_),_===0?"uv":`uv${_}`}function g(_,M,L,A,R,P){let O=A.fog,N=R.geometry,B=_.isMeshStandardMaterial||_.isMeshLambertMaterial||_.isMeshPhongMaterial?A.environment:null,V=_.isMeshStandardMaterial||_.isMeshLambertMaterial&&!_.envMap||_.isMeshPhongMaterial&&!_.envMap,G=t.get(_.envMap||B,V),tt=f[_.type],X=n.precision;_.precision!==null&&(X=n.getMaxPrecision(_.precision),X!==_.precision&&Ct("WebGLProgram.getParameters:",_.precision,"not supported, using",X,"instead."));let j=N.morphAttributes.position||N.morphAttributes.normal||N.morphAttributes.color,Q=j!==void 0?j.length:0,vt=0;N.morphAttributes.position!==void 0&&(vt=1),N.morphAttributes.normal!==void 0&&(vt=2),N.morphAttributes.color!==void 0&&(vt=3);let Dt,K,ht,xt;if(tt){let gt=Mn[tt];Dt=gt.vertexShader,K=gt.fragmentShader}else{Dt=_.vertexShader,K=_.fragmentShader;let gt=a.getVertexShaderStage(_),ue=a.getFragmentShaderStage(_);a.update(_,gt,ue),ht=gt.id,xt=ue.id}let Rt=e.getRenderTarget(),mt=e.state.buffers.depth.getReversed(),Ot=R.isInstancedMesh===!0,De=R.isBatchedMesh===!0,Pt=!!_.map,Qt=!!_.matcap,_e=!!G,qt=_e&&G.isPMREMTexture===!0,si=!!_.aoMap,Ge=!!_.lightMap,Mi=!!_.bumpMap&&_.wireframe===!1,Ie=!!_.normalMap,dn=!!_.displacementMap,Je=!!_.emissiveMap,Hi=!!_.metalnessMap,Vi=!!_.roughnessMap,Gi=_.anisotropy>0,F=_.clearcoat>0,Wi=_.diffuseRoughness>0,Ae=_.dispersion>0,Re=_.retroreflectivity>0,pt=_.iridescence>0,We=_.sheen>0,It=_.transmission>0,Ut=Gi&&!!_.anisotropyMap,I=F&&!!_.clearcoatMap,b=F&&!!_.clearcoatNormalMap,z=F&&!!_.clearcoatRoughnessMap,et=Wi&&!!_.diffuseRoughnessMap,J=pt&&!!_.iridescenceMap,st=pt&&!!_.iridescenceThicknessMap,ut=We&&!!_.sheenColorMap,q=We&&!!_.sheenRoughnessMap,Y=!!_.specularMap,ot=!!_.specularColorMap,D=!!_.specularIntensityMap,Z=It&&!!_.transmissionMap,$=It&&!!_.thicknessMap,at=!!_.gradientMap,nt=!!_.alphaMap,rt=_.alphaTest>0,Et=!!_.alphaHash,Ht=!!_.extensions,it=Sn;_.toneMapped&&(Rt===null||Rt.isXRRenderTarget===!0)&&(it=e.toneMapping);let At=qt?G.isCompressedCubeTexture?G.image[0].mipmaps:G.mipmaps:null,kt={shaderID:tt,shaderType:_.type,shaderName:_.name,vertexShader:Dt,fragmentShader:K,defines:_.defines,customVertexShaderID:ht,customFragmentShaderID:xt,isRawShaderMaterial:_.isRawShaderMaterial===!0,glslVersion:_.glslVersion,precision:X,batching:De,batchingColor:De&&R._colorsTexture!==null,instancing:Ot,instancingColor:Ot&&R.instanceColor!==null,instancingMorph:Ot&&R.morphTexture!==null,outputColorSpace:Rt===null?e.outputColorSpace:Rt.isXRRenderTarget===!0?Rt.texture.colorSpace:Wt.workingColorSpace,alphaToCoverage:!!_.alphaToCoverage,map:Pt,matcap:Qt,envMap:_e,envMapMode:_e&&G.mapping,envMapPMREM:qt,envMapMaxLod:qt?At.length-1:null,envMapSize:qt?At[0].width:null,aoMap:si,lightMap:Ge,bumpMap:Mi,normalMap:Ie,displacementMap:dn,emissiveMap:Je,normalMapObjectSpace:Ie&&_.normalMapType===c_,normalMapTangentSpace:Ie&&_.normalMapType===td,packedNormalMap:Ie&&_.normalMapType===td&&uE(_.normalMap.format),metalnessMap:Hi,roughnessMap:Vi,anisotropy:Gi,anisotropyMap:Ut,clearcoat:F,clearcoatMap:I,clearcoatNormalMap:b,clearcoatRoughnessMap:z,diffuseRoughness:Wi,diffuseRoughnessMap:et,dispersion:Ae,retroreflection:Re,iridescence:pt,iridescenceMap:J,iridescenceThicknessMap:st,sheen:We,sheenColorMap:ut,sheenRoughnessMap:q,specularMap:Y,specularColorMap:ot,specularIntensityMap:D,transmission:It,transmissionMap:Z,thicknessMap:$,gradientMap:at,opaque:_.transparent===!1&&_.blending===kr&&_.alphaToCoverage===!1,alphaMap:nt,alphaTest:rt,alphaHash:Et,combine:_.combine,mapUv:Pt&&d(_.map.channel),aoMapUv:si&&d(_.aoMap.channel),lightMapUv:Ge&&d(_.lightMap.channel),bumpMapUv:Mi&&d(_.bumpMap.channel),normalMapUv:Ie&&d(_.normalMap.channel),displacementMapUv:dn&&d(_.displacementMap.channel),emissiveMapUv:Je&&d(_.emissiveMap.channel),metalnessMapUv:Hi&&d(_.metalnessMap.channel),roughnessMapUv:Vi&&d(_.roughnessMap.channel),anisotropyMapUv:Ut&&d(_.anisotropyMap.channel),clearcoatMapUv:I&&d(_.clearcoatMap.channel),clearcoatNormalMapUv:b&&d(_.clearcoatNormalMap.channel),clearcoatRoughnessMapUv:z&&d(_.clearcoatRoughnessMap.channel),diffuseRoughnessMapUv:et&&d(_.diffuseRoughnessMap.channel),iridescenceMapUv:J&&d(_.iridescenceMap.channel),iridescenceThicknessMapUv:st&&d(_.iridescenceThicknessMap.channel),sheenColorMapUv:ut&&d(_.sheenColorMap.channel),sheenRoughnessMapUv:q&&d(_.sheenRoughnessMap.channel),specularMapUv:Y&&d(_.specularMap.channel),specularColorMapUv:ot&&d(_.specularColorMap.channel),specularIntensityMapUv:D&&d(_.specularIntensityMap.channel),transmissionMapUv:Z&&d(_.transmissionMap.channel),thicknessMapUv:$&&d(_.thicknessMap.channel),alphaMapUv:nt&&d(_.alphaMap.channel),vertexTangents:!!N.attributes.tangent&&(Ie||Gi),vertexNormals:!!N.attributes.normal,vertexColors:_.vertexColors,vertexAlphas:_.vertexColors===!0&&!!N.attributes.color&&N.attributes.color.itemSize===4,pointsUvs:R.isPoints===!0&&!!N.attributes.uv&&(Pt||nt),fog:!!O,useFog:_.fog===!0,fogExp2:!!O&&O.isFogExp2,flatShading:_.wireframe===!1&&(_.flatShading===!0||N.attributes.normal===void 0&&Ie===!1&&(_.isMeshLambertMaterial||_.isMeshPhongMaterial||_.isMeshStandardMaterial||_.isMeshPhysicalMaterial)),sizeAttenuation:_.sizeAttenuation===!0,logarithmicDepthBuffer:u,reversedDepthBuffer:mt,skinning:R.isSkinnedMesh===!0,hasPositionAttribute:N.attributes.position!==void 0,morphTargets:N.morphAttributes.position!==void 0,morphNormals:N.morphAttributes.normal!==void 0,morphColors:N.morphAttributes.color!==void 0,morphTargetsCount:Q,morphTextureStride:vt,numSunLights:M.sun.length,numDirLights:M.directional.length,numPointLights:M.point.length,numSpotLights:M.spot.length,numSpotLightMaps:M.spotLightMap.length,numRectAreaLights:M.rectArea.length,numHemiLights:M.hemi.length,numSunLightShadows:M.sunShadowMap.length,numDirLightShadows:M.directionalShadowMap.length,numPointLightShadows:M.pointShadowMap.length,numSpotLightShadows:M.spotShadowMap.length,numSpotLightShadowsWithMaps:M.numSpotLightShadowsWithMaps,numLightProbes:M.numLightProbes,numLightProbeGrids:P.filter(gt=>gt.texture!==null).length,numClippingPlanes:r.numPlanes,numClipIntersection:r.numIntersection,dithering:_.dithering,shadowMapEnabled:e.shadowMap.enabled&&L.length>0,shadowMapType:e.shadowMap.type,toneMapping:it,decodeVideoTexture:Pt&&_.map.isVideoTexture===!0&&Wt.getTransfer(_.map.colorSpace)===le,decodeVideoTextureEmissive:Je&&_.emissiveMap.isVideoTexture===!0&&Wt.getTransfer(_.emissiveMap.colorSpace)===le,premultipliedAlpha:_.premultipliedAlpha,doubleSided:_.side===Te,flipSided:_.side===oi,useDepthPacking:_.depthPacking>=0,depthPacking:_.depthPacking||0,index0AttributeName:_.index0AttributeName,extensionClipCullDistance:Ht&&_.extensions.clipCullDistance===!0&&i.has("WEBGL_clip_cull_distance"),extensionMultiDraw:(Ht&&_.extensions.multiDraw===!0||De)&&i.has("WEBGL_multi_draw"),rendererExtensionParallelShaderCompile:i.has("KHR_parallel_shader_compile"),customProgramCacheKey:_.customProgramCacheKey()};return kt.vertexUv1s=l.has(1),kt.vertexUv2s=l.has(2),kt.vertexUv3s=l.has(3),l.clear(),kt}function x(_){let M=[];if(_.shaderID?M.push(_.shaderID):(M.push(_.customVertexShaderID),M.push(_.customFragmentShaderID)),_.defines!==void 0)for(let L in _.defines)M.push(L),M.push(_.defines[L]);return _.isRawShaderMaterial===!1&&(p(M,_),m(M,_),M.push(e.outputColorSpace)),M.push(_.customProgramCacheKey),M.join()}function p(_,M){_.push(M.precision),_.push(M.outputColorSpace),_.push(M.envMapMode),_.push(M.envMapPMREM),_.push(M.envMapMaxLod),_.push(M.envMapSize),_.push(M.mapUv),_.push(M.alphaMapUv),_.push(M.lightMapUv),_.push(M.aoMapUv),_.push(M.bumpMapUv),_.push(M.normalMapUv),_.push(M.displacementMapUv),_.push(M.emissiveMapUv),_.push(M.metalnessMapUv),_.push(M.roughnessMapUv),_.push(M.anisotropyMapUv),_.push(M.clearcoatMapUv),_.push(M.clearcoatNormalMapUv),_.push(M.clearcoatRoughnessMapUv),_.push(M.diffuseRoughnessMapUv),_.push(M.iridescenceMapUv),_.push(M.iridescenceThicknessMapUv),_.push(M.sheenColorMapUv),_.push(M.sheenRoughnessMapUv),_.push(M.specularMapUv),_.push(M.specularColorMapUv),_.push(M.specularIntensityMapUv),_.push(M.transmissionMapUv),_.push(M.thicknessMapUv),_.push(M.combine),_.push(M.fogExp2),_.push(M.sizeAttenuation),_.push(M.morphTargetsCount),_.push(M.numSunLights),_.push(M.numDirLights),_.push(M.numPointLights),_.push(M.numSpotLights),_.push(M.numSpotLightMaps),_.push(M.numHemiLights),_.push(M.numRectAreaLights),_.push(M.numSunLightShadows),_.push(M.numDirLightShadows),_.push(M.numPointLightShadows),_.push(M.numSpotLightShadows),_.push(M.numSpotLightShadowsWithMaps),_.push(M.numLightProbes),_.push(M.numLightProbeGrids),_.push(M.shadowMapType),_.push(M.toneMapping),_.push(M.numClippingPlanes),_.push(M.numClipIntersection),_.push(M.depthPacking)}function m(_,M){o.disableAll(),M.instancing&&o.enable(0),M.instancingColor&&o.enable(1),M.instancingMorph&&o.enable(2),M.matcap&&o.enable(3),M.envMap&&o.enable(4),M.normalMapObjectSpace&&o.enable(5),M.normalMapTangentSpace&&o.enable(6),M.clearcoat&&o.enable(7),M.iridescence&&o.enable(8),M.alphaTest&&o.enable(9),M.vertexColors&&o.enable(10),M.vertexAlphas&&o.enable(11),M.vertexUv1s&&o.enable(12),M.vertexUv2s&&o.enable(13),M.vertexUv3s&&o.enable(14),M.vertexTangents&&o.enable(15),M.anisotropy&&o.enable(16),M.alphaHash&&o.enable(17),M.batching&&o.enable(18),M.dispersion&&o.enable(19),M.retroreflection&&o.enable(24),M.diffuseRoughness&&o.enable(25),M.batchingColor&&o.enable(20),M.gradientMap&&o.enable(21),M.packedNormalMap&&o.enable(22),M.vertexNormals&&o.enable(23),_.push(o.mask),o.disableAll(),M.fog&&o.enable(0),M.useFog&&o.enable(1),M.flatShading&&o.enable(2),M.logarithmicDepthBuffer&&o.enable(3),M.reversedDepthBuffer&&o.enable(4),M.skinning&&o.enable(5),M.morphTargets&&o.enable(6),M.morphNormals&&o.enable(7),M.morphColors&&o.enable(8),M.premultipliedAlpha&&o.enable(9),M.shadowMapEnabled&&o.enable(10),M.doubleSided&&o.enable(11),M.flipSided&&o.enable(12),M.useDepthPacking&&o.enable(13),M.dithering&&o.enable(14),M.transmission&&o.enable(15),M.sheen&&o.enable(16),M.opaque&&o.enable(17),M.pointsUvs&&o.enable(18),M.decodeVideoTexture&&o.enable(19),M.decodeVideoTextureEmissive&&o.enable(20),M.alphaToCoverage&&o.enable(21),M.numLightProbeGrids>0&&o.enable(22),M.hasPositionAttribute&&o.enable(23),_.push(o.mask)}function y(_){let M=f[_.type],L;if(M){let A=Mn[M];L=b_.clone(A.uniforms)}else L=_.uniforms;return L}function S(_,M){let L=h.get(M);return L!==void 0?++L.usedTimes:(L=new cE(e,M,_,s),c.push(L),h.set(M,L)),L}function v(_){if(--_.usedTimes===0){let M=c.indexOf(_);c[M]=c[c.length-1],c.pop(),h.delete(_.cacheKey),_.destroy()}}function w(_){a.remove(_)}function T(){a.dispose()}return{getParameters:g,getProgramCacheKey:x,getUniforms:y,acquireProgram:S,releaseProgram:v,releaseShaderCache:w,programs:c,dispose:T}}function dE(){let e=new WeakMap;function t(o){return e.has(o)}function i(o){let a=e.get(o);return a===void 0&&(a={},e.set(o,a)),a}function n(o){e.delete(o)}function s(o,a,l){e.get(o)[a]=l}function r(){e=new WeakMap}return{has:t,get:i,remove:n,update:s,dispose:r}}function pE(e,t){return e.groupOrder!==t.groupOrder?e.groupOrder-t.groupOrder:e.renderOrder!==t.renderOrder?e.renderOrder-t.renderOrder:e.material.id!==t.material.id?e.material.id-t.material.id:e.materialVariant!==t.materialVariant?e.materialVariant-t.materialVariant:e.z!==t.z?e.z-t.z:e.id-t.id}function W_(e,t){return e.groupOrder!==t.groupOrder?e.groupOrder-t.groupOrder:e.renderOrder!==t.renderOrder?e.renderOrder-t.renderOrder:e.z!==t.z?t.z-e.z:e.id-t.id}function X_(){let e=[],t=0,i=[],n=[],s=[];function r(){t=0,i.length=0,n.length=0,s.length=0}function o(f){let d=0;return f.isInstancedMesh&&(d+=2),f.isSkinnedMesh&&(d+=1),d}function a(f,d,g,x,p,m){let y=e[t];return y===void 0?(y={id:f.id,object:f,geometry:d,material:g,materialVariant:o(f),groupOrder:x,renderOrder:f.renderOrder,z:p,group:m},e[t]=y):(y.id=f.id,y.object=f,y.geometry=d,y.material=g,y.materialVariant=o(f),y.groupOrder=x,y.renderOrder=f.renderOrder,y.z=p,y.group=m),t++,y}function l(f,d,g,x,p,m,y){y.reversedDepth===!0&&(p=-p);let S=a(f,d,g,x,p,m);g.transmission>0?n.push(S):g.transparent===!0?s.push(S):i.push(S)}function c(f,d,g,x,p,m){let y=a(f,d,g,x,p,m);g.transmission>0?n.unshift(y):g.transparent===!0?s.unshift(y):i.unshift(y)}function h(f,d){i.length>1&&i.sort(f||pE),n.length>1&&n.sort(d||W_),s.length>1&&s.sort(d||W_)}function u(){for(let f=t,d=e.length;f<d;f++){let g=e[f];if(g.id===null)break;g.id=null,g.object=null,g.geometry=null,g.material=null,g.group=null}}return{opaque:i,transmissive:n,transparent:s,init:r,push:l,unshift:c,finish:u,sort:h}}function mE(){let e=new WeakMap;function t(n,s){let r=e.get(n),o;return r===void 0?(o=new X_,e.set(n,[o])):s>=r.length?(o=new X_,r.push(o)):o=r[s],o}function i(){e=new WeakMap}return{get:t,dispose:i}}function gE(){let e={};return{get:function(t){if(e[t.id]!==void 0)return e[t.id];let i;switch(t.type){case"SunLight":case"DirectionalLight":i={direction:new C,color:new Xt};break;case"SpotLight":i={position:new C,direction:new C,color:new Xt,distance:0,coneCos:0,penumbraCos:0,decay:0};break;case"PointLight":i={position:new C,color:new Xt,distance:0,decay:0};break;case"HemisphereLight":i={direction:new C,skyColor:new Xt,groundColor:new Xt};break;case"RectAreaLight":i={color:new Xt,position:new C,halfWidth:new C,halfHeight:new C};break}return e[t.id]=i,i}}}function _E(){let e={};return{get:function(t){if(e[t.id]!==void 0)return e[t.id];let i;switch(t.type){case"SunLight":case"DirectionalLight":i={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Tt};break;case"SpotLight":i={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Tt};break;case"PointLight":i={shadowIntensity:1,shadowBias:0,shadowNormalBias:0,shadowRadius:1,shadowMapSize:new Tt,shadowCameraNear:1,shadowCameraFar:1e3};break}return e[t.id]=i,i}}}var yE=0;function xE(e,t){return(t.castShadow?2:0)-(e.castShadow?2:0)+(t.map?1:0)-(e.map?1:0)}function vE(e){let t=new gE,i=_E(),n={version:0,hash:{sunLength:-1,directionalLength:-1,pointLength:-1,spotLength:-1,rectAreaLength:-1,hemiLength:-1,numSunShadows:-1,numDirectionalShadows:-1,numPointShadows:-1,numSpotShadows:-1,numSpotMaps:-1,numLightProbes:-1},ambient:[0,0,0],probe:[],sun:[],sunShadow:[],sunShadowMap:[],sunShadowMatrix:[],sunShadowCascade:[],directional:[],directionalShadow:[],directionalShadowMap:[],directionalShadowMatrix:[],spot:[],spotLightMap:[],spotShadow:[],spotShadowMap:[],spotLightMatrix:[],rectArea:[],rectAreaLTC1:null,rectAreaLTC2:null,point:[],pointShadow:[],pointShadowMap:[],pointShadowMatrix:[],hemi:[],numSpotLightShadowsWithMaps:0,numLightProbes:0};for(let c=0;c<9;c++)n.probe.push(new C);let s=new C,r=new Vt,o=new Vt;function a(c){let h=0,u=0,f=0;for(let P=0;P<9;P++)n.probe[P].set(0,0,0);let d=0,g=0,x=0,p=0,m=0,y=0,S=0,v=0,w=0,T=0,_=0,M=0,L=0,A=0;c.sort(xE);for(let P=0,O=c.length;P<O;P++){let N=c[P],B=N.color,V=N.intensity,G=N.distance,tt=null;if(N.shadow&&N.shadow.map&&(N.shadow.map.texture.format===fs?tt=N.shadow.map.texture:tt=N.shadow.map.depthTexture||N.shadow.map.texture),N.isAmbientLight)h+=B.r*V,u+=B.g*V,f+=B.b*V;else if(N.isLightProbe){for(let X=0;X<9;X++)n.probe[X].addScaledVector(N.sh.coefficients[X],V);A++}else if(N.isSunLight){let X=t.get(N);if(X.color.copy(N.color).multiplyScalar(N.intensity),N.castShadow){let j=N.shadow,Q=i.get(N);Q.shadowIntensity=j.intensity,Q.shadowBias=j.bias,Q.shadowNormalBias=j.normalBias,Q.shadowRadius=j.radius,Q.shadowMapSize.copy(j.mapSize).multiply(j.getFrameExtents()),n.sunShadow[g]=Q,n.sunShadowMap[g]=tt;let vt=j.getViewportCount();for(let Dt=0;Dt<vt;Dt++)n.sunShadowMatrix[x+Dt]=j.getMatrix(Dt),n.sunShadowCascade[x+Dt]=j._cascadeData[Dt];x+=vt,g++}n.sun[d]=X,d++}else if(N.isDirectionalLight){let X=t.get(N);if(X.color.copy(N.color).multiplyScalar(N.intensity),N.castShadow){let j=N.shadow,Q=i.get(N);Q.shadowIntensity=j.intensity,Q.shadowBias=j.bias,Q.shadowNormalBias=j.normalBias,Q.shadowRadius=j.radius,Q.shadowMapSize=j.mapSize,n.directionalShadow[p]=Q,n.directionalShadowMap[p]=tt,n.directionalShadowMatrix[p]=N.shadow.matrix,w++}n.directional[p]=X,p++}else if(N.isSpotLight){let X=t.get(N);X.position.setFromMatrixPosition(N.matrixWorld),X.color.copy(B).multiplyScalar(V),X.distance=G,X.coneCos=Math.cos(N.angle),X.penumbraCos=Math.cos(N.angle*(1-N.penumbra)),X.decay=N.decay,n.spot[y]=X;let j=N.shadow;if(N.map&&(n.spotLightMap[M]=N.map,M++,j.updateMatrices(N),N.castShadow&&L++),n.spotLightMatrix[y]=j.matrix,N.castShadow){let Q=i.get(N);Q.shadowIntensity=j.intensity,Q.shadowBias=j.bias,Q.shadowNormalBias=j.normalBias,Q.shadowRadius=j.radius,Q.shadowMapSize=j.mapSize,n.spotShadow[y]=Q,n.spotShadowMap[y]=tt,_++}y++}else if(N.isRectAreaLight){let X=t.get(N);X.color.copy(B).multiplyScalar(V),X.halfWidth.set(N.width*.5,0,0),X.halfHeight.set(0,N.height*.5,0),n.rectArea[S]=X,S++}else if(N.isPointLight){let X=t.get(N);if(X.color.copy(N.color).multiplyScalar(N.intensity),X.distance=N.distance,X.decay=N.decay,N.castShadow){let j=N.shadow,Q=i.get(N);Q.shadowIntensity=j.intensity,Q.shadowBias=j.bias,Q.shadowNormalBias=j.normalBias,Q.shadowRadius=j.radius,Q.shadowMapSize=j.mapSize,Q.shadowCameraNear=j.camera.near,Q.shadowCameraFar=j.camera.far,n.pointShadow[m]=Q,n.pointShadowMap[m]=tt,n.pointShadowMatrix[m]=N.shadow.matrix,T++}n.point[m]=X,m++}else if(N.isHemisphereLight){let X=t.get(N);X.skyColor.copy(N.color).multiplyScalar(V),X.groundColor.copy(N.groundColor).multiplyScalar(V),n.hemi[v]=X,v++}}S>0&&(e.has("OES_texture_float_linear")===!0?(n.rectAreaLTC1=_t.LTC_FLOAT_1,n.rectAreaLTC2=_t.LTC_FLOAT_2):(n.rectAreaLTC1=_t.LTC_HALF_1,n.rectAreaLTC2=_t.LTC_HALF_2)),n.ambient[0]=h,n.ambient[1]=u,n.ambient[2]=f;let R=n.hash;(R.sunLength!==d||R.directionalLength!==p||R.pointLength!==m||R.spotLength!==y||R.rectAreaLength!==S||R.hemiLength!==v||R.numSunShadows!==g||R.numDirectionalShadows!==w||R.numPointShadows!==T||R.numSpotShadows!==_||R.numSpotMaps!==M||R.numLightProbes!==A)&&(n.sun.length=d,n.directional.length=p,n.spot.length=y,n.rectArea.length=S,n.point.length=m,n.hemi.length=v,n.sunShadow.length=g,n.sunShadowMap.length=g,n.sunShadowMatrix.length=x,n.sunShadowCascade.length=x,n.directionalShadow.length=w,n.directionalShadowMap.length=w,n.directionalShadowMatrix.length=w,n.pointShadow.length=T,n.pointShadowMap.length=T,n.pointShadowMatrix.length=T,n.spotShadow.length=_,n.spotShadowMap.length=_,n.spotLightMatrix.length=_+M-L,n.spotLightMap.length=M,n.numSpotLightShadowsWithMaps=L,n.numLightProbes=A,R.sunLength=d,R.directionalLength=p,R.pointLength=m,R.spotLength=y,R.rectAreaLength=S,R.hemiLength=v,R.numSunShadows=g,R.numDirectionalShadows=w,R.numPointShadows=T,R.numSpotShadows=_,R.numSpotMaps=M,R.numLightProbes=A,n.version=yE++)}function l(c,h){let u=0,f=0,d=0,g=0,x=0,p=0,m=h.matrixWorldInverse;for(let y=0,S=c.length;y<S;y++){let v=c[y];if(v.isSunLight){let w=n.sun[u];w.direction.setFromMatrixPosition(v.matrixWorld),w.direction.transformDirection(m),u++}else if(v.isDirectionalLight){let w=n.directional[f];w.direction.setFromMatrixPosition(v.matrixWorld),s.setFromMatrixPosition(v.target.matrixWorld),w.direction.sub(s),w.direction.transformDirection(m),f++}else if(v.isSpotLight){let w=n.spot[g];w.position.setFromMatrixPosition(v.matrixWorld),w.position.applyMatrix4(m),w.direction.setFromMatrixPosition(v.matrixWorld),s.setFromMatrixPosition(v.target.matrixWorld),w.direction.sub(s),w.direction.transformDirection(m),g++}else if(v.isRectAreaLight){let w=n.rectArea[x];w.position.setFromMatrixPosition(v.matrixWorld),w.position.applyMatrix4(m),o.identity(),r.copy(v.matrixWorld),r.premultiply(m),o.extractRotation(r),w.halfWidth.set(v.width*.5,0,0),w.halfHeight.set(0,v.height*.5,0),w.halfWidth.applyMatrix4(o),w.halfHeight.applyMatrix4(o),x++}else if(v.isPointLight){let w=n.point[d];w.position.setFromMatrixPosition(v.matrixWorld),w.position.applyMatrix4(m),d++}else if(v.isHemisphereLight){let w=n.hemi[p];w.direction.setFromMatrixPosition(v.matrixWorld),w.direction.transformDirection(m),p++}}}return{setup:a,setupView:l,state:n}}function $_(e){let t=new vE(e),i=[],n=[],s=[];function r(u){h.camera=u,i.length=0,n.length=0,s.length=0}function o(u){u.isLightProbeGrid?s.push(u):i.push(u)}function a(u){n.push(u)}function l(){t.setup(i),s.sort((u,f)=>u.priority-f.priority||u.id-f.id)}function c(u){t.setupView(i,u)}let h={lightsArray:i,shadowsArray:n,lightProbeGridArray:s,camera:null,lights:t,transmissionRenderTarget:{},textureUnits:0};return{init:r,state:h,setupLights:l,setupLightsView:c,pushLight:o,pushShadow:a}}function SE(e){let t=new WeakMap;function i(s,r=0){let o=t.get(s),a;return o===void 0?(a=new $_(e),t.set(s,[a])):r>=o.length?(a=new $_(e),o.push(a)):a=o[r],a}function n(){t=new WeakMap}return{get:i,dispose:n}}var wE=`void main() {
	gl_Position = vec4( position, 1.0 );
}`,ME=`uniform sampler2D shadow_pass;
uniform vec2 resolution;
uniform float radius;
void main() {
	const float samples = float( VSM_SAMPLES );
	float mean = 0.0;
	float squared_mean = 0.0;
	float uvStride = samples <= 1.0 ? 0.0 : 2.0 / ( samples - 1.0 );
	float uvStart = samples <= 1.0 ? 0.0 : - 1.0;
	for ( float i = 0.0; i < samples; i ++ ) {
		float uvOffset = uvStart + i * uvStride;
		#ifdef HORIZONTAL_PASS
			vec2 distribution = texture2D( shadow_pass, ( gl_FragCoord.xy + vec2( uvOffset, 0.0 ) * radius ) / resolution ).rg;
			mean += distribution.x;
			squared_mean += distribution.y * distribution.y + distribution.x * distribution.x;
		#else
			float depth = texture2D( shadow_pass, ( gl_FragCoord.xy + vec2( 0.0, uvOffset ) * radius ) / resolution ).r;
			mean += depth;
			squared_mean += depth * depth;
		#endif
	}
	mean = mean / samples;
	squared_mean = squared_mean / samples;
	float std_dev = sqrt( max( 0.0, squared_mean - mean * mean ) );
	gl_FragColor = vec4( mean, std_dev, 0.0, 1.0 );
}`,bE=[new C(1,0,0),new C(-1,0,0),new C(0,1,0),new C(0,-1,0),new C(0,0,1),new C(0,0,-1)],TE=[new C(0,-1,0),new C(0,-1,0),new C(0,0,1),new C(0,0,-1),new C(0,-1,0),new C(0,-1,0)],q_=new Vt,pa=new C,gd=new C;function EE(e,t,i){let n=new Gs,s=new Tt,r=new Tt,o=new be,a=new Jl,l=new jl,c={},h=i.maxTextureSize,u={[di]:oi,[oi]:di,[Te]:Te},f=new qe({defines:{VSM_SAMPLES:8},uniforms:{shadow_pass:{value:null},resolution:{value:new Tt},radius:{value:4}},vertexShader:wE,fragmentShader:ME}),d=f.clone();d.defines.HORIZONTAL_PASS=1;let g=new Jt;g.setAttribute("position",new Zt(new Float32Array([-1,-1,.5,3,-1,.5,-1,3,.5]),3));let x=new pe(g,f),p=this;this.enabled=!1,this.autoUpdate=!0,this.needsUpdate=!1,this.type=oa;let m=this.type;this.render=function(T,_,M){if(p.enabled===!1||p.autoUpdate===!1&&p.needsUpdate===!1||T.length===0)return;this.type===zg&&(Ct("WebGLShadowMap: PCFSoftShadowMap has been removed. Using PCFShadowMap instead."),this.type=oa);let L=e.getRenderTarget(),A=e.getActiveCubeFace(),R=e.getActiveMipmapLevel(),P=e.state;P.setBlending(Ys),P.buffers.depth.getReversed()===!0?P.buffers.color.setClear(0,0,0,0):P.buffers.color.setClear(1,1,1,1),P.buffers.depth.setTest(!0),P.setScissorTest(!1);let O=m!==this.type;O&&_.traverse(function(N){N.material&&(Array.isArray(N.material)?N.material.forEach(B=>B.needsUpdate=!0):N.material.needsUpdate=!0)});for(let N=0,B=T.length;N<B;N++){let V=T[N],G=V.shadow;if(G===void 0){Ct("WebGLShadowMap:",V,"has no shadow.");continue}if(G.autoUpdate===!1&&G.needsUpdate===!1)continue;s.copy(G.mapSize);let tt=G.getFrameExtents();s.multiply(tt),r.copy(G.mapSize),(s.x>h||s.y>h)&&(s.x>h&&(r.x=Math.floor(h/tt.x),s.x=r.x*tt.x,G.mapSize.x=r.x),s.y>h&&(r.y=Math.floor(h/tt.y),s.y=r.y*tt.y,G.mapSize.y=r.y));let X=e.state.buffers.depth.getReversed();if(G.camera._reversedDepth=X,G.map===null||O===!0){if(G.map!==null&&(G.map.depthTexture!==null&&(G.map.depthTexture.dispose(),G.map.depthTexture=null),G.map.dispose()),this.type===Br){if(V.isPointLight){Ct("WebGLShadowMap: VSM shadow maps are not supported for PointLights. Use PCF or BasicShadowMap instead.");continue}G.map=new vi(s.x,s.y,{format:fs,type:cn,minFilter:xi,magFilter:xi,generateMipmaps:!1}),G.map.texture.name=V.name+".shadowMap",G.map.depthTexture=new Gn(s.x,s.y,ln),G.map.depthTexture.name=V.name+".shadowMapDepth",G.map.depthTexture.format=Hn,G.map.depthTexture.compareFunction=null,G.map.depthTexture.minFilter=ii,G.map.depthTexture.magFilter=ii}else V.isPointLight?(G.map=new ga(s.x),G.map.depthTexture=new jo(s.x,an)):(G.map=new vi(s.x,s.y),G.map.depthTexture=new Gn(s.x,s.y,an)),G.map.depthTexture.name=V.name+".shadowMap",G.map.depthTexture.format=Hn,this.type===oa?(G.map.depthTexture.compareFunction=X?id:ed,G.map.depthTexture.minFilter=xi,G.map.depthTexture.magFilter=xi):(G.map.depthTexture.compareFunction=null,G.map.depthTexture.minFilter=ii,G.map.depthTexture.magFilter=ii);G.camera.updateProjectionMatrix()}G.map.isWebGLCubeRenderTarget!==!0&&(G.map.width!==s.x||G.map.height!==s.y)&&G.map.setSize(s.x,s.y);let j=G.map.isWebGLCubeRenderTarget?6:G.getViewportCount();V.isPointLight!==!0&&G.updateMatrices(V,M);let Q=(G.camera.layers.mask&4294967294)!==0?G.camera.layers:M.layers;for(let vt=0;vt<j;vt++){let Dt=G.getCamera(vt);if(V.isPointLight){let K=G.camera,ht=G.matrix,xt=V.distance||K.far;xt!==K.far&&(K.far=xt,K.updateProjectionMatrix()),pa.setFromMatrixPosition(V.matrixWorld),K.position.copy(pa),gd.copy(K.position),gd.add(bE[vt]),K.up.copy(TE[vt]),K.lookAt(gd),K.updateMatrixWorld(),ht.makeTranslation(-pa.x,-pa.y,-pa.z),q_.multiplyMatrices(K.projectionMatrix,K.matrixWorldInverse),G._frustum.setFromProjectionMatrix(q_,K.coordinateSystem,K.reversedDepth)}if(G.map.isWebGLCubeRenderTarget)e.setRenderTarget(G.map,vt),e.clear();else{vt===0&&(e.setRenderTarget(G.map),e.clear());let K=G.getViewport(vt);o.set(r.x*K.x,r.y*K.y,r.x*K.z,r.y*K.w),P.viewport(o)}n=G.getFrustum(vt),v(_,M,Dt,V,Q,this.type)}G.isPointLightShadow!==!0&&this.type===Br&&y(G,M),G.needsUpdate=!1}m=this.type,p.needsUpdate=!1,e.setRenderTarget(L,A,R)};function y(T,_){let M=t.update(x);f.defines.VSM_SAMPLES!==T.blurSamples&&(f.defines.VSM_SAMPLES=T.blurSamples,d.defines.VSM_SAMPLES=T.blurSamples,f.needsUpdate=!0,d.needsUpdate=!0),T.mapPass===null?T.mapPass=new vi(s.x,s.y,{format:fs,type:cn}):(T.mapPass.width!==T.map.width||T.mapPass.height!==T.map.height)&&T.mapPass.setSize(T.map.width,T.map.height),f.uniforms.shadow_pass.value=T.map.depthTexture,f.uniforms.resolution.value.set(T.map.width,T.map.height),f.uniforms.radius.value=T.radius,e.setRenderTarget(T.mapPass),e.clear(),e.renderBufferDirect(_,null,M,f,x,null),d.uniforms.shadow_pass.value=T.mapPass.texture,d.uniforms.resolution.value.set(T.map.width,T.map.height),d.uniforms.radius.value=T.radius,e.setRenderTarget(T.map),e.clear(),e.renderBufferDirect(_,null,M,d,x,null)}function S(T,_,M,L){let A=null,R=M.isPointLight===!0?T.customDistanceMaterial:T.customDepthMaterial;if(R!==void 0)A=R;else if(A=M.isPointLight===!0?l:a,e.localClippingEnabled&&_.clipShadows===!0&&Array.isArray(_.clippingPlanes)&&_.clippingPlanes.length!==0||_.displacementMap&&_.displacementScale!==0||_.alphaMap&&_.alphaTest>0||_.map&&_.alphaTest>0||_.alphaToCoverage===!0){let P=A.uuid,O=_.uuid,N=c[P];N===void 0&&(N={},c[P]=N);let B=N[O];B===void 0&&(B=A.clone(),N[O]=B,_.addEventListener("dispose",w)),A=B}if(A.visible=_.visible,A.wireframe=_.wireframe,L===Br?A.side=_.shadowSide!==null?_.shadowSide:_.side:A.side=_.shadowSide!==null?_.shadowSide:u[_.side],A.alphaMap=_.alphaMap,A.alphaTest=_.alphaToCoverage===!0?.5:_.alphaTest,A.map=_.map,A.clipShadows=_.clipShadows,A.clippingPlanes=_.clippingPlanes,A.clipIntersection=_.clipIntersection,A.displacementMap=_.displacementMap,A.displacementScale=_.displacementScale,A.displacementBias=_.displacementBias,A.wireframeLinewidth=_.wireframeLinewidth,A.linewidth=_.linewidth,M.isPointLight===!0&&A.isMeshDistanceMaterial===!0){let P=e.properties.get(A);P.light=M}return A}function v(T,_,M,L,A,R){if(T.visible===!1)return;if(T.layers.test(A)&&(T.isMesh||T.isLine||T.isPoints)&&(T.castShadow||T.receiveShadow&&R===Br)&&(!T.frustumCulled||T.intersectsFrustum(n))){T.modelViewMatrix.multiplyMatrices(M.matrixWorldInverse,T.matrixWorld);let N=t.update(T),B=T.material;if(Array.isArray(B)){let V=N.groups;for(let G=0,tt=V.length;G<tt;G++){let X=V[G],j=B[X.materialIndex];if(j&&j.visible){let Q=S(T,j,L,R);T.onBeforeShadow(e,T,_,M,N,Q,X),e.renderBufferDirect(M,null,N,Q,T,X),T.onAfterShadow(e,T,_,M,N,Q,X)}}}else if(B.visible){let V=S(T,B,L,R);T.onBeforeShadow(e,T,_,M,N,V,null),e.renderBufferDirect(M,null,N,V,T,null),T.onAfterShadow(e,T,_,M,N,V,null)}}let O=T.children;for(let N=0,B=O.length;N<B;N++)v(O[N],_,M,L,A,R)}function w(T){T.target.removeEventListener("dispose",w);for(let M in c){let L=c[M],A=T.target.uuid;A in L&&(L[A].dispose(),delete L[A])}}}function AE(e,t){function i(){let D=!1,Z=new be,$=null,at=new be(0,0,0,0);return{setMask:function(nt){$!==nt&&!D&&(e.colorMask(nt,nt,nt,nt),$=nt)},setLocked:function(nt){D=nt},setClear:function(nt,rt,Et,Ht,it){it===!0&&(nt*=Ht,rt*=Ht,Et*=Ht),Z.set(nt,rt,Et,Ht),at.equals(Z)===!1&&(e.clearColor(nt,rt,Et,Ht),at.copy(Z))},reset:function(){D=!1,$=null,at.set(-1,0,0,0)}}}function n(){let D=!1,Z=!1,$=null,at=null,nt=null;return{setReversed:function(rt){if(Z!==rt){let Et=t.get("EXT_clip_control");rt?Et.clipControlEXT(Et.LOWER_LEFT_EXT,Et.ZERO_TO_ONE_EXT):Et.clipControlEXT(Et.LOWER_LEFT_EXT,Et.NEGATIVE_ONE_TO_ONE_EXT),Z=rt;let Ht=nt;nt=null,this.setClear(Ht)}},getReversed:function(){return Z},setTest:function(rt){rt?mt(e.DEPTH_TEST):Ot(e.DEPTH_TEST)},setMask:function(rt){$!==rt&&!D&&(e.depthMask(rt),$=rt)},setFunc:function(rt){if(Z&&(rt=v_[rt]),at!==rt){switch(rt){case Nl:e.depthFunc(e.NEVER);break;case Dl:e.depthFunc(e.ALWAYS);break;case Ol:e.depthFunc(e.LESS);break;case Rr:e.depthFunc(e.LEQUAL);break;case Ul:e.depthFunc(e.EQUAL);break;case Fl:e.depthFunc(e.GEQUAL);break;case Bl:e.depthFunc(e.GREATER);break;case kl:e.depthFunc(e.NOTEQUAL);break;default:e.depthFunc(e.LEQUAL)}at=rt}},setLocked:function(rt){D=rt},setClear:function(rt){nt!==rt&&(nt=rt,Z&&(rt=1-rt),e.clearDepth(rt))},reset:function(){D=!1,$=null,at=null,nt=null,Z=!1}}}function s(){let D=!1,Z=null,$=null,at=null,nt=null,rt=null,Et=null,Ht=null,it=null;return{setTest:function(At){D||(At?mt(e.STENCIL_TEST):Ot(e.STENCIL_TEST))},setMask:function(At){Z!==At&&!D&&(e.stencilMask(At),Z=At)},setFunc:function(At,kt,gt){($!==At||at!==kt||nt!==gt)&&(e.stencilFunc(At,kt,gt),$=At,at=kt,nt=gt)},setOp:function(At,kt,gt){(rt!==At||Et!==kt||Ht!==gt)&&(e.stencilOp(At,kt,gt),rt=At,Et=kt,Ht=gt)},setLocked:function(At){D=At},setClear:function(At){it!==At&&(e.clearStencil(At),it=At)},reset:function(){D=!1,Z=null,$=null,at=null,nt=null,rt=null,Et=null,Ht=null,it=null}}}let r=new i,o=new n,a=new s,l={},c=new WeakMap,h={},u={},f={},d=new WeakMap,g=[],x=null,p=!1,m=null,y=null,S=null,v=null,w=null,T=null,_=null,M=new Xt(0,0,0),L=0,A=!1,R=null,P=null,O=null,N=null,B=null,V=e.getParameter(e.MAX_COMBINED_TEXTURE_IMAGE_UNITS),G=!1,tt=0,X=e.getParameter(e.VERSION);X.indexOf("WebGL")!==-1?(tt=parseFloat(/^WebGL (\d)/.exec(X)[1]),G=tt>=1):X.indexOf("OpenGL ES")!==-1&&(tt=parseFloat(/^OpenGL ES (\d)/.exec(X)[1]),G=tt>=2);let j=null,Q={},vt=e.getParameter(e.SCISSOR_BOX),Dt=e.getParameter(e.VIEWPORT),K=new be().fromArray(vt),ht=new be().fromArray(Dt);function xt(D,Z,$,at){let nt=new Uint8Array(4),rt=e.createTexture();e.bindTexture(D,rt),e.texParameteri(D,e.TEXTURE_MIN_FILTER,e.NEAREST),e.texParameteri(D,e.TEXTURE_MAG_FILTER,e.NEAREST);for(let Et=0;Et<$;Et++)D===e.TEXTURE_3D||D===e.TEXTURE_2D_ARRAY?e.texImage3D(Z,0,e.RGBA,1,1,at,0,e.RGBA,e.UNSIGNED_BYTE,nt):e.texImage2D(Z+Et,0,e.RGBA,1,1,0,e.RGBA,e.UNSIGNED_BYTE,nt);return rt}let Rt={};Rt[e.TEXTURE_2D]=xt(e.TEXTURE_2D,e.TEXTURE_2D,1),Rt[e.TEXTURE_CUBE_MAP]=xt(e.TEXTURE_CUBE_MAP,e.TEXTURE_CUBE_MAP_POSITIVE_X,6),Rt[e.TEXTURE_2D_ARRAY]=xt(e.TEXTURE_2D_ARRAY,e.TEXTURE_2D_ARRAY,1,1),Rt[e.TEXTURE_3D]=xt(e.TEXTURE_3D,e.TEXTURE_3D,1,1),r.setClear(0,0,0,1),o.setClear(1),a.setClear(0),mt(e.DEPTH_TEST),o.setFunc(Rr),Mi(!1),Ie(Lf),mt(e.CULL_FACE),si(Ys);function mt(D){h[D]!==!0&&(e.enable(D),h[D]=!0)}function Ot(D){h[D]!==!1&&(e.disable(D),h[D]=!1)}function De(D,Z){return f[D]!==Z?(e.bindFramebuffer(D,Z),f[D]=Z,D===e.DRAW_FRAMEBUFFER&&(f[e.FRAMEBUFFER]=Z),D===e.FRAMEBUFFER&&(f[e.DRAW_FRAMEBUFFER]=Z),!0):!1}function Pt(D,Z){let $=g,at=!1;if(D){$=d.get(Z),$===void 0&&($=[],d.set(Z,$));let nt=D.textures;if($.length!==nt.length||$[0]!==e.COLOR_ATTACHMENT0){for(let rt=0,Et=nt.length;rt<Et;rt++)$[rt]=e.COLOR_ATTACHMENT0+rt;$.length=nt.length,at=!0}}else $[0]!==e.BACK&&($[0]=e.BACK,at=!0);at&&e.drawBuffers($)}function Qt(D){return x!==D?(e.useProgram(D),x=D,!0):!1}let _e={[Ks]:e.FUNC_ADD,[Vg]:e.FUNC_SUBTRACT,[Gg]:e.FUNC_REVERSE_SUBTRACT};_e[Wg]=e.MIN,_e[Xg]=e.MAX;let qt={[$g]:e.ZERO,[qg]:e.ONE,[Yg]:e.SRC_COLOR,[Uf]:e.SRC_ALPHA,[t_]:e.SRC_ALPHA_SATURATE,[jg]:e.DST_COLOR,[Zg]:e.DST_ALPHA,[Kg]:e.ONE_MINUS_SRC_COLOR,[Ff]:e.ONE_MINUS_SRC_ALPHA,[Qg]:e.ONE_MINUS_DST_COLOR,[Jg]:e.ONE_MINUS_DST_ALPHA,[e_]:e.CONSTANT_COLOR,[i_]:e.ONE_MINUS_CONSTANT_COLOR,[n_]:e.CONSTANT_ALPHA,[s_]:e.ONE_MINUS_CONSTANT_ALPHA};function si(D,Z,$,at,nt,rt,Et,Ht,it,At){if(D===Ys){p===!0&&(Ot(e.BLEND),p=!1);return}if(p===!1&&(mt(e.BLEND),p=!0),D!==Hg){if(D!==m||At!==A){if((y!==Ks||w!==Ks)&&(e.blendEquation(e.FUNC_ADD),y=Ks,w=Ks),At)switch(D){case kr:e.blendFuncSeparate(e.ONE,e.ONE_MINUS_SRC_ALPHA,e.ONE,e.ONE_MINUS_SRC_ALPHA);break;case Nf:e.blendFunc(e.ONE,e.ONE);break;case Df:e.blendFuncSeparate(e.ZERO,e.ONE_MINUS_SRC_COLOR,e.ZERO,e.ONE);break;case Of:e.blendFuncSeparate(e.DST_COLOR,e.ONE_MINUS_SRC_ALPHA,e.ZERO,e.ONE);break;default:Lt("WebGLState: Invalid blending: ",D);break}else switch(D){case kr:e.blendFuncSeparate(e.SRC_ALPHA,e.ONE_MINUS_SRC_ALPHA,e.ONE,e.ONE_MINUS_SRC_ALPHA);break;case Nf:e.blendFuncSeparate(e.SRC_ALPHA,e.ONE,e.ONE,e.ONE);break;case Df:Lt("WebGLState: SubtractiveBlending requires material.premultipliedAlpha = true");break;case Of:Lt("WebGLState: MultiplyBlending requires material.premultipliedAlpha = true");break;default:Lt("WebGLState: Invalid blending: ",D);break}S=null,v=null,T=null,_=null,M.set(0,0,0),L=0,m=D,A=At}return}nt=nt||Z,rt=rt||$,Et=Et||at,(Z!==y||nt!==w)&&(e.blendEquationSeparate(_e[Z],_e[nt]),y=Z,w=nt),($!==S||at!==v||rt!==T||Et!==_)&&(e.blendFuncSeparate(qt[$],qt[at],qt[rt],qt[Et]),S=$,v=at,T=rt,_=Et),(Ht.equals(M)===!1||it!==L)&&(e.blendColor(Ht.r,Ht.g,Ht.b,it),M.copy(Ht),L=it),m=D,A=!1}function Ge(D,Z){D.side===Te?Ot(e.CULL_FACE):mt(e.CULL_FACE);let $=D.side===oi;Z&&($=!$),Mi($),D.blending===kr&&D.transparent===!1?si(Ys):si(D.blending,D.blendEquation,D.blendSrc,D.blendDst,D.blendEquationAlpha,D.blendSrcAlpha,D.blendDstAlpha,D.blendColor,D.blendAlpha,D.premultipliedAlpha),o.setFunc(D.depthFunc),o.setTest(D.depthTest),o.setMask(D.depthWrite),r.setMask(D.colorWrite);let at=D.stencilWrite;a.setTest(at),at&&(a.setMask(D.stencilWriteMask),a.setFunc(D.stencilFunc,D.stencilRef,D.stencilFuncMask),a.setOp(D.stencilFail,D.stencilZFail,D.stencilZPass)),Je(D.polygonOffset,D.polygonOffsetFactor,D.polygonOffsetUnits),D.alphaToCoverage===!0?mt(e.SAMPLE_ALPHA_TO_COVERAGE):Ot(e.SAMPLE_ALPHA_TO_COVERAGE)}function Mi(D){R!==D&&(D?e.frontFace(e.CW):e.frontFace(e.CCW),R=D)}function Ie(D){D!==Bg?(mt(e.CULL_FACE),D!==P&&(D===Lf?e.cullFace(e.BACK):D===kg?e.cullFace(e.FRONT):e.cullFace(e.FRONT_AND_BACK))):Ot(e.CULL_FACE),P=D}function dn(D){D!==O&&(G&&e.lineWidth(D),O=D)}function Je(D,Z,$){D?(mt(e.POLYGON_OFFSET_FILL),(N!==Z||B!==$)&&(N=Z,B=$,o.getReversed()&&(Z=-Z,$=-$),e.polygonOffset(Z,$))):Ot(e.POLYGON_OFFSET_FILL)}function Hi(D){D?mt(e.SCISSOR_TEST):Ot(e.SCISSOR_TEST)}function Vi(D){D===void 0&&(D=e.TEXTURE0+V-1),j!==D&&(e.activeTexture(D),j=D)}function Gi(D,Z,$){$===void 0&&(j===null?$=e.TEXTURE0+V-1:$=j);let at=Q[$];at===void 0&&(at={type:void 0,texture:void 0},Q[$]=at),(at.type!==D||at.texture!==Z)&&(j!==$&&(e.activeTexture($),j=$),e.bindTexture(D,Z||Rt[D]),at.type=D,at.texture=Z)}function F(){let D=Q[j];D!==void 0&&D.type!==void 0&&(e.bindTexture(D.type,null),D.type=void 0,D.texture=void 0)}function Wi(){try{e.compressedTexImage2D(...arguments)}catch(D){Lt("WebGLState:",D)}}function Ae(){try{e.compressedTexImage3D(...arguments)}catch(D){Lt("WebGLState:",D)}}function Re(){try{e.texSubImage2D(...arguments)}catch(D){Lt("WebGLState:",D)}}function pt(){try{e.texSubImage3D(...arguments)}catch(D){Lt("WebGLState:",D)}}function We(){try{e.compressedTexSubImage2D(...arguments)}catch(D){Lt("WebGLState:",D)}}function It(){try{e.compressedTexSubImage3D(...arguments)}catch(D){Lt("WebGLState:",D)}}function Ut(){try{e.texStorage2D(...arguments)}catch(D){Lt("WebGLState:",D)}}function I(){try{e.texStorage3D(...arguments)}catch(D){Lt("WebGLState:",D)}}function b(){try{e.texImage2D(...arguments)}catch(D){Lt("WebGLState:",D)}}function z(){try{e.texImage3D(...arguments)}catch(D){Lt("WebGLState:",D)}}function et(D){return u[D]!==void 0?u[D]:e.getParameter(D)}function J(D,Z){u[D]!==Z&&(e.pixelStorei(D,Z),u[D]=Z)}function st(D){K.equals(D)===!1&&(e.scissor(D.x,D.y,D.z,D.w),K.copy(D))}function ut(D){ht.equals(D)===!1&&(e.viewport(D.x,D.y,D.z,D.w),ht.copy(D))}function q(D,Z){let $=c.get(Z);$===void 0&&($=new WeakMap,c.set(Z,$));let at=$.get(D);at===void 0&&(at=e.getUniformBlockIndex(Z,D.name),e.uniformBlockBinding(Z,at,at),$.set(D,at))}function Y(D,Z,$){let nt=c.get(Z).get(D);l[nt]!==$&&(e.bindBufferBase(e.UNIFORM_BUFFER,nt,$),l[nt]=$)}function ot(){e.disable(e.BLEND),e.disable(e.CULL_FACE),e.disable(e.DEPTH_TEST),e.disable(e.POLYGON_OFFSET_FILL),e.disable(e.SCISSOR_TEST),e.disable(e.STENCIL_TEST),e.disable(e.SAMPLE_ALPHA_TO_COVERAGE),e.blendEquation(e.FUNC_ADD),e.blendFunc(e.ONE,e.ZERO),e.blendFuncSeparate(e.ONE,e.ZERO,e.ONE,e.ZERO),e.blendColor(0,0,0,0),e.colorMask(!0,!0,!0,!0),e.clearColor(0,0,0,0),e.depthMask(!0),e.depthFunc(e.LESS),o.setReversed(!1),e.clearDepth(1),e.stencilMask(4294967295),e.stencilFunc(e.ALWAYS,0,4294967295),e.stencilOp(e.KEEP,e.KEEP,e.KEEP),e.clearStencil(0),e.cullFace(e.BACK),e.frontFace(e.CCW),e.polygonOffset(0,0),e.activeTexture(e.TEXTURE0),e.bindFramebuffer(e.FRAMEBUFFER,null),e.bindFramebuffer(e.DRAW_FRAMEBUFFER,null),e.bindFramebuffer(e.READ_FRAMEBUFFER,null),e.useProgram(null),e.lineWidth(1),e.scissor(0,0,e.canvas.width,e.canvas.height),e.viewport(0,0,e.canvas.width,e.canvas.height),e.pixelStorei(e.PACK_ALIGNMENT,4),e.pixelStorei(e.UNPACK_ALIGNMENT,4),e.pixelStorei(e.UNPACK_FLIP_Y_WEBGL,!1),e.pixelStorei(e.UNPACK_PREMULTIPLY_ALPHA_WEBGL,!1),e.pixelStorei(e.UNPACK_COLORSPACE_CONVERSION_WEBGL,e.BROWSER_DEFAULT_WEBGL),e.pixelStorei(e.PACK_ROW_LENGTH,0),e.pixelStorei(e.PACK_SKIP_PIXELS,0),e.pixelStorei(e.PACK_SKIP_ROWS,0),e.pixelStorei(e.UNPACK_ROW_LENGTH,0),e.pixelStorei(e.UNPACK_IMAGE_HEIGHT,0),e.pixelStorei(e.UNPACK_SKIP_PIXELS,0),e.pixelStorei(e.UNPACK_SKIP_ROWS,0),e.pixelStorei(e.UNPACK_SKIP_IMAGES,0),h={},u={},j=null,Q={},f={},l={},d=new WeakMap,g=[],x=null,p=!1,m=null,y=null,S=null,v=null,w=null,T=null,_=null,M=new Xt(0,0,0),L=0,A=!1,R=null,P=null,O=null,N=null,B=null,K.set(0,0,e.canvas.width,e.canvas.height),ht.set(0,0,e.canvas.width,e.canvas.height),r.reset(),o.reset(),a.reset()}return{buffers:{color:r,depth:o,stencil:a},enable:mt,disable:Ot,bindFramebuffer:De,drawBuffers:Pt,useProgram:Qt,setBlending:si,setMaterial:Ge,setFlipSided:Mi,setCullFace:Ie,setLineWidth:dn,setPolygonOffset:Je,setScissorTest:Hi,activeTexture:Vi,bindTexture:Gi,unbindTexture:F,compressedTexImage2D:Wi,compressedTexImage3D:Ae,texImage2D:b,texImage3D:z,pixelStorei:J,getParameter:et,updateUBOMapping:q,uniformBlockBinding:Y,texStorage2D:Ut,texStorage3D:I,texSubImage2D:Re,texSubImage3D:pt,compressedTexSubImage2D:We,compressedTexSubImage3D:It,scissor:st,viewport:ut,reset:ot}}function RE(e,t,i,n,s,r,o){let a=t.has("WEBGL_multisampled_render_to_texture")?t.get("WEBGL_multisampled_render_to_texture"):null,l=typeof navigator>"u"?!1:/OculusBrowser/g.test(navigator.userAgent),c=new Tt,h=new WeakMap,u=new Set,f,d=new WeakMap,g=new Set,x=new FinalizationRegistry(I=>g.delete(I)),p=!1;try{p=typeof OffscreenCanvas<"u"&&new OffscreenCanvas(1,1).getContext("2d")!==null}catch{}function m(I,b){return p?new OffscreenCanvas(I,b):$o("canvas")}function y(I,b,z){let et=1,J=Ut(I);if((J.width>z||J.height>z)&&(et=z/Math.max(J.width,J.height)),et<1)if(typeof HTMLImageElement<"u"&&I instanceof HTMLImageElement||typeof HTMLCanvasElement<"u"&&I instanceof HTMLCanvasElement||typeof ImageBitmap<"u"&&I instanceof ImageBitmap||typeof VideoFrame<"u"&&I instanceof VideoFrame){let st=Math.floor(et*J.width),ut=Math.floor(et*J.height);f===void 0&&(f=m(st,ut));let q=b?m(st,ut):f;return q.width=st,q.height=ut,q.getContext("2d").drawImage(I,0,0,st,ut),Ct("WebGLRenderer: Texture has been resized from ("+J.width+"x"+J.height+") to ("+st+"x"+ut+")."),q}else return"data"in I&&Ct("WebGLRenderer: Image in DataTexture is too big ("+J.width+"x"+J.height+")."),I;return I}function S(I){return I.generateMipmaps}function v(I){e.generateMipmap(I)}function w(I){return I.isWebGLCubeRenderTarget?e.TEXTURE_CUBE_MAP:I.isWebGL3DRenderTarget?e.TEXTURE_3D:I.isWebGLArrayRenderTarget||I.isCompressedArrayTexture?e.TEXTURE_2D_ARRAY:e.TEXTURE_2D}function T(I,b,z,et,J,st=!1){if(I!==null){if(e[I]!==void 0)return e[I];Ct("WebGLRenderer: Attempt to use non-existing WebGL internal format '"+I+"'")}let ut;et&&(ut=t.get("EXT_texture_norm16"),ut||Ct("WebGLRenderer: Unable to use normalized textures without EXT_texture_norm16 extension"));let q=b;if(b===e.RED&&(z===e.FLOAT&&(q=e.R32F),z===e.HALF_FLOAT&&(q=e.R16F),z===e.UNSIGNED_BYTE&&(q=e.R8),z===e.UNSIGNED_SHORT&&ut&&(q=ut.R16_EXT),z===e.SHORT&&ut&&(q=ut.R16_SNORM_EXT)),b===e.RED_INTEGER&&(z===e.UNSIGNED_BYTE&&(q=e.R8UI),z===e.UNSIGNED_SHORT&&(q=e.R16UI),z===e.UNSIGNED_INT&&(q=e.R32UI),z===e.BYTE&&(q=e.R8I),z===e.SHORT&&(q=e.R16I),z===e.INT&&(q=e.R32I)),b===e.RG&&(z===e.FLOAT&&(q=e.RG32F),z===e.HALF_FLOAT&&(q=e.RG16F),z===e.UNSIGNED_BYTE&&(q=e.RG8),z===e.UNSIGNED_SHORT&&ut&&(q=ut.RG16_EXT),z===e.SHORT&&ut&&(q=ut.RG16_SNORM_EXT)),b===e.RG_INTEGER&&(z===e.UNSIGNED_BYTE&&(q=e.RG8UI),z===e.UNSIGNED_SHORT&&(q=e.RG16UI),z===e.UNSIGNED_INT&&(q=e.RG32UI),z===e.BYTE&&(q=e.RG8I),z===e.SHORT&&(q=e.RG16I),z===e.INT&&(q=e.RG32I)),b===e.RGB_INTEGER&&(z===e.UNSIGNED_BYTE&&(q=e.RGB8UI),z===e.UNSIGNED_SHORT&&(q=e.RGB16UI),z===e.UNSIGNED_INT&&(q=e.RGB32UI),z===e.BYTE&&(q=e.RGB8I),z===e.SHORT&&(q=e.RGB16I),z===e.INT&&(q=e.RGB32I)),b===e.RGBA_INTEGER&&(z===e.UNSIGNED_BYTE&&(q=e.RGBA8UI),z===e.UNSIGNED_SHORT&&(q=e.RGBA16UI),z===e.UNSIGNED_INT&&(q=e.RGBA32UI),z===e.BYTE&&(q=e.RGBA8I),z===e.SHORT&&(q=e.RGBA16I),z===e.INT&&(q=e.RGBA32I)),b===e.RGB&&(z===e.UNSIGNED_SHORT&&ut&&(q=ut.RGB16_EXT),z===e.SHORT&&ut&&(q=ut.RGB16_SNORM_EXT),z===e.UNSIGNED_INT_5_9_9_9_REV&&(q=e.RGB9_E5),z===e.UNSIGNED_INT_10F_11F_11F_REV&&(q=e.R11F_G11F_B10F)),b===e.RGBA){let Y=st?Wo:Wt.getTransfer(J);z===e.FLOAT&&(q=e.RGBA32F),z===e.HALF_FLOAT&&(q=e.RGBA16F),z===e.UNSIGNED_BYTE&&(q=Y===le?e.SRGB8_ALPHA8:e.RGBA8),z===e.UNSIGNED_SHORT&&ut&&(q=ut.RGBA16_EXT),z===e.SHORT&&ut&&(q=ut.RGBA16_SNORM_EXT),z===e.UNSIGNED_SHORT_4_4_4_4&&(q=e.RGBA4),z===e.UNSIGNED_SHORT_5_5_5_1&&(q=e.RGB5_A1)}return(q===e.R16F||q===e.R32F||q===e.RG16F||q===e.RG32F||q===e.RGBA16F||q===e.RGBA32F)&&t.get("EXT_color_buffer_float"),q}function _(I,b){let z;return I?b===null||b===an||b===Js?z=e.DEPTH24_STENCIL8:b===ln?z=e.DEPTH32F_STENCIL8:b===Hr&&(z=e.DEPTH24_STENCIL8,Ct("DepthTexture: 16 bit depth attachment is not supported with stencil. Using 24-bit attachment.")):b===null||b===an||b===Js?z=e.DEPTH_COMPONENT24:b===ln?z=e.DEPTH_COMPONENT32F:b===Hr&&(z=e.DEPTH_COMPONENT16),z}function M(I,b){return S(I)===!0||I.isFramebufferTexture&&I.minFilter!==ii&&I.minFilter!==xi?Math.log2(Math.max(b.width,b.height))+1:I.mipmaps.length>0?I.mipmaps.length:I.isCompressedTexture&&Array.isArray(I.image)?b.mipmaps.length:1}function L(I){let b=new WeakRef(I);n.get(I).__ref=b,g.add(b),x.register(I,b,b)}function A(I){let b=n.get(I).__ref;b!==void 0&&(g.delete(b),x.unregister(b))}function R(I){O(I.target)}function P(I){N(I.target)}function O(I){I.removeEventListener("dispose",R),A(I),V(I),I.isVideoTexture&&h.delete(I),I.isHTMLTexture&&u.delete(I)}function N(I){I.removeEventListener("dispose",P),A(I),tt(I)}function B(){for(let I of g){let b=I.deref();b!==void 0&&(b.isRenderTarget===!0?N(b):O(b))}g.clear(),u.clear()}function V(I){let b=n.get(I);if(b.__webglInit===void 0)return;let z=I.source,et=d.get(z);if(et){let J=et[b.__cacheKey];J.usedTimes--,J.usedTimes===0&&G(I),Object.keys(et).length===0&&d.delete(z)}n.remove(I)}function G(I){let b=n.get(I);e.deleteTexture(b.__webglTexture);let z=I.source,et=d.get(z);delete et[b.__cacheKey],o.memory.textures--}function tt(I){let b=n.get(I);b.__depthDisposeCallback&&b.__depthDisposeCallback();let z=I.depthTexture;if(z&&z.renderTarget===I&&O(z),I.isWebGLCubeRenderTarget)for(let J=0;J<6;J++){if(Array.isArray(b.__webglFramebuffer[J]))for(let st=0;st<b.__webglFramebuffer[J].length;st++)e.deleteFramebuffer(b.__webglFramebuffer[J][st]);else e.deleteFramebuffer(b.__webglFramebuffer[J]);b.__webglDepthbuffer&&e.deleteRenderbuffer(b.__webglDepthbuffer[J])}else{if(Array.isArray(b.__webglFramebuffer))for(let J=0;J<b.__webglFramebuffer.length;J++)e.deleteFramebuffer(b.__webglFramebuffer[J]);else e.deleteFramebuffer(b.__webglFramebuffer);if(b.__webglDepthbuffer&&e.deleteRenderbuffer(b.__webglDepthbuffer),b.__webglMultisampledFramebuffer&&e.deleteFramebuffer(b.__webglMultisampledFramebuffer),b.__webglColorRenderbuffer)for(let J=0;J<b.__webglColorRenderbuffer.length;J++)b.__webglColorRenderbuffer[J]&&e.deleteRenderbuffer(b.__webglColorRenderbuffer[J]);b.__webglDepthRenderbuffer&&e.deleteRenderbuffer(b.__webglDepthRenderbuffer)}let et=I.textures;for(let J=0,st=et.length;J<st;J++){let ut=n.get(et[J]);ut.__webglTexture&&(e.deleteTexture(ut.__webglTexture),o.memory.textures--),n.remove(et[J])}n.remove(I)}let X=0;function j(){X=0}function Q(){return X}function vt(I){X=I}function Dt(){let I=X;return I>=s.maxTextures&&Ct("WebGLTextures: Trying to use "+(I+1)+" texture units while this GPU supports only "+s.maxTextures),X+=1,I}function K(I){let b=[];return b.push(I.wrapS),b.push(I.wrapT),b.push(I.wrapR||0),b.push(I.magFilter),b.push(I.minFilter),b.push(I.anisotropy),b.push(I.internalFormat),b.push(I.format),b.push(I.type),b.push(I.generateMipmaps),b.push(I.mipmapsAutoUpdate),b.push(I.premultiplyAlpha),b.push(I.flipY),b.push(I.unpackAlignment),b.push(I.colorSpace),b.join()}function ht(I,b){let z=n.get(I);if(I.isVideoTexture&&We(I),I.isRenderTargetTexture===!1&&I.isExternalTexture!==!0&&I.version>0&&z.__version!==I.version){let et=I.image;if(et===null)Ct("WebGLRenderer: Texture marked for update but no image data found.");else if(et.complete===!1)Ct("WebGLRenderer: Texture marked for update but image is incomplete");else{Ge(z,I,b);return}}else I.isExternalTexture&&(z.__webglTexture=I.sourceTexture?I.sourceTexture:null);i.bindTexture(e.TEXTURE_2D,z.__webglTexture,e.TEXTURE0+b)}function xt(I,b){let z=n.get(I);if(I.isRenderTargetTexture===!1&&I.version>0&&z.__version!==I.version){Ge(z,I,b);return}else I.isExternalTexture&&(z.__webglTexture=I.sourceTexture?I.sourceTexture:null);i.bindTexture(e.TEXTURE_2D_ARRAY,z.__webglTexture,e.TEXTURE0+b)}function Rt(I,b){let z=n.get(I);if(I.isRenderTargetTexture===!1&&I.version>0&&z.__version!==I.version){Ge(z,I,b);return}i.bindTexture(e.TEXTURE_3D,z.__webglTexture,e.TEXTURE0+b)}function mt(I,b){let z=n.get(I);if(I.version>0&&z.__version!==I.version){Mi(z,I,b);return}i.bindTexture(e.TEXTURE_CUBE_MAP,z.__webglTexture,e.TEXTURE0+b)}let Ot={[zl]:e.REPEAT,[yn]:e.CLAMP_TO_EDGE,[Hl]:e.MIRRORED_REPEAT},De={[ii]:e.NEAREST,[a_]:e.NEAREST_MIPMAP_NEAREST,[aa]:e.NEAREST_MIPMAP_LINEAR,[xi]:e.LINEAR,[fc]:e.LINEAR_MIPMAP_NEAREST,[Wn]:e.LINEAR_MIPMAP_LINEAR},Pt={[u_]:e.NEVER,[nd]:e.ALWAYS,[f_]:e.LESS,[ed]:e.LEQUAL,[d_]:e.EQUAL,[id]:e.GEQUAL,[p_]:e.GREATER,[m_]:e.NOTEQUAL};function Qt(I,b){if(b.type===ln&&t.has("OES_texture_float_linear")===!1&&(b.magFilter===xi||b.magFilter===fc||b.magFilter===aa||b.magFilter===Wn||b.minFilter===xi||b.minFilter===fc||b.minFilter===aa||b.minFilter===Wn)&&Ct("WebGLRenderer: Unable to use linear filtering with floating point textures. OES_texture_float_linear not supported on this device."),e.texParameteri(I,e.TEXTURE_WRAP_S,Ot[b.wrapS]),e.texParameteri(I,e.TEXTURE_WRAP_T,Ot[b.wrapT]),(I===e.TEXTURE_3D||I===e.TEXTURE_2D_ARRAY)&&e.texParameteri(I,e.TEXTURE_WRAP_R,Ot[b.wrapR]),e.texParameteri(I,e.TEXTURE_MAG_FILTER,De[b.magFilter]),e.texParameteri(I,e.TEXTURE_MIN_FILTER,De[b.minFilter]),b.compareFunction&&(e.texParameteri(I,e.TEXTURE_COMPARE_MODE,e.COMPARE_REF_TO_TEXTURE),e.texParameteri(I,e.TEXTURE_COMPARE_FUNC,Pt[b.compareFunction])),t.has("EXT_texture_filter_anisotropic")===!0){if(b.magFilter===ii||b.minFilter!==aa&&b.minFilter!==Wn||b.type===ln&&t.has("OES_texture_float_linear")===!1)return;if(b.anisotropy>1||n.get(b).__currentAnisotropy){let z=t.get("EXT_texture_filter_anisotropic");e.texParameterf(I,z.TEXTURE_MAX_ANISOTROPY_EXT,Math.min(b.anisotropy,s.getMaxAnisotropy())),n.get(b).__currentAnisotropy=b.anisotropy}}}function _e(I,b){let z=!1;I.__webglInit===void 0&&(I.__webglInit=!0,b.addEventListener("dispose",R),L(b));let et=b.source,J=d.get(et);J===void 0&&(J={},d.set(et,J));let st=K(b);if(st!==I.__cacheKey){J[st]===void 0&&(J[st]={texture:e.createTexture(),usedTimes:0},o.memory.textures++,z=!0),J[st].usedTimes++;let ut=J[I.__cacheKey];ut!==void 0&&(J[I.__cacheKey].usedTimes--,ut.usedTimes===0&&G(b)),I.__cacheKey=st,I.__webglTexture=J[st].texture}return z}function qt(I,b,z){return Math.floor(Math.floor(I/z)/b)}function si(I,b,z,et){let st=I.updateRanges;if(st.length===0)i.texSubImage2D(e.TEXTURE_2D,0,0,0,b.width,b.height,z,et,b.data);else{st.sort((D,Z)=>D.start-Z.start);let ut=0;for(let D=1;D<st.length;D++){let Z=st[ut],$=st[D],at=Z.start+Z.count,nt=qt($.start,b.width,4),rt=qt(Z.start,b.width,4);$.start<=at+1&&nt===rt&&qt($.start+$.count-1,b.width,4)===nt?Z.count=Math.max(Z.count,$.start+$.count-Z.start):(++ut,st[ut]=$)}st.length=ut+1;let q=i.getParameter(e.UNPACK_ROW_LENGTH),Y=i.getParameter(e.UNPACK_SKIP_PIXELS),ot=i.getParameter(e.UNPACK_SKIP_ROWS);i.pixelStorei(e.UNPACK_ROW_LENGTH,b.width);for(let D=0,Z=st.length;D<Z;D++){let $=st[D],at=Math.floor($.start/4),nt=Math.ceil($.count/4),rt=at%b.width,Et=Math.floor(at/b.width),Ht=nt,it=1;i.pixelStorei(e.UNPACK_SKIP_PIXELS,rt),i.pixelStorei(e.UNPACK_SKIP_ROWS,Et),i.texSubImage2D(e.TEXTURE_2D,0,rt,Et,Ht,it,z,et,b.data)}I.clearUpdateRanges(),i.pixelStorei(e.UNPACK_ROW_LENGTH,q),i.pixelStorei(e.UNPACK_SKIP_PIXELS,Y),i.pixelStorei(e.UNPACK_SKIP_ROWS,ot)}}function Ge(I,b,z){let et=e.TEXTURE_2D;(b.isDataArrayTexture||b.isCompressedArrayTexture)&&(et=e.TEXTURE_2D_ARRAY),b.isData3DTexture&&(et=e.TEXTURE_3D);let J=_e(I,b),st=b.source;i.bindTexture(et,I.__webglTexture,e.TEXTURE0+z);let ut=n.get(st);if(st.version!==ut.__version||J===!0){if(i.activeTexture(e.TEXTURE0+z),(typeof ImageBitmap<"u"&&b.image instanceof ImageBitmap)===!1){let it=Wt.getPrimaries(Wt.workingColorSpace),At=b.colorSpace===$n?null:Wt.getPrimaries(b.colorSpace),kt=b.colorSpace===$n||it===At?e.NONE:e.BROWSER_DEFAULT_WEBGL;i.pixelStorei(e.UNPACK_FLIP_Y_WEBGL,b.flipY),i.pixelStorei(e.UNPACK_PREMULTIPLY_ALPHA_WEBGL,b.premultiplyAlpha),i.pixelStorei(e.UNPACK_COLORSPACE_CONVERSION_WEBGL,kt)}i.pixelStorei(e.UNPACK_ALIGNMENT,b.unpackAlignment);let Y=y(b.image,!1,s.maxTextureSize);Y=It(b,Y);let ot=r.convert(b.format,b.colorSpace),D=r.convert(b.type),Z=T(b.internalFormat,ot,D,b.normalized,b.colorSpace,b.isVideoTexture);Qt(et,b);let $,at=b.mipmaps,nt=b.isVideoTexture!==!0,rt=ut.__version===void 0||J===!0,Et=st.dataReady,Ht=M(b,Y);if(b.isDepthTexture)Z=_(b.format===Xn,b.type),rt&&(nt?i.texStorage2D(e.TEXTURE_2D,1,Z,Y.width,Y.height):i.texImage2D(e.TEXTURE_2D,0,Z,Y.width,Y.height,0,ot,D,null));else if(b.isDataTexture)if(at.length>0){nt&&rt&&i.texStorage2D(e.TEXTURE_2D,Ht,Z,at[0].width,at[0].height);for(let it=0,At=at.length;it<At;it++)$=at[it],nt?Et&&i.texSubImage2D(e.TEXTURE_2D,it,0,0,$.width,$.height,ot,D,$.data):i.texImage2D(e.TEXTURE_2D,it,Z,$.width,$.height,0,ot,D,$.data);b.generateMipmaps=!1}else nt?(rt&&i.texStorage2D(e.TEXTURE_2D,Ht,Z,Y.width,Y.height),Et&&si(b,Y,ot,D)):i.texImage2D(e.TEXTURE_2D,0,Z,Y.width,Y.height,0,ot,D,Y.data);else if(b.isCompressedTexture)if(b.isCompressedArrayTexture){nt&&rt&&i.texStorage3D(e.TEXTURE_2D_ARRAY,Ht,Z,at[0].width,at[0].height,Y.depth);for(let it=0,At=at.length;it<At;it++)if($=at[it],b.format!==hn)if(ot!==null)if(nt){if(Et)if(b.layerUpdates.size>0){let kt=pd($.width,$.height,b.format,b.type);for(let gt of b.layerUpdates){let ue=$.data.subarray(gt*kt/$.data.BYTES_PER_ELEMENT,(gt+1)*kt/$.data.BYTES_PER_ELEMENT);i.compressedTexSubImage3D(e.TEXTURE_2D_ARRAY,it,0,0,gt,$.width,$.height,1,ot,ue)}}else i.compressedTexSubImage3D(e.TEXTURE_2D_ARRAY,it,0,0,0,$.width,$.height,Y.depth,ot,$.data)}else i.compressedTexImage3D(e.TEXTURE_2D_ARRAY,it,Z,$.width,$.height,Y.depth,0,$.data,0,0);else Ct("WebGLRenderer: Attempt to load unsupported compressed texture format in .uploadTexture()");else nt?Et&&i.texSubImage3D(e.TEXTURE_2D_ARRAY,it,0,0,0,$.width,$.height,Y.depth,ot,D,$.data):i.texImage3D(e.TEXTURE_2D_ARRAY,it,Z,$.width,$.height,Y.depth,0,ot,D,$.data);b.layerUpdates.size>0&&b.clearLayerUpdates()}else{nt&&rt&&i.texStorage2D(e.TEXTURE_2D,Ht,Z,at[0].width,at[0].height);for(let it=0,At=at.length;it<At;it++)$=at[it],b.format!==hn?ot!==null?nt?Et&&i.compressedTexSubImage2D(e.TEXTURE_2D,it,0,0,$.width,$.height,ot,$.data):i.compressedTexImage2D(e.TEXTURE_2D,it,Z,$.width,$.height,0,$.data):Ct("WebGLRenderer: Attempt to load unsupported compressed texture format in .uploadTexture()"):nt?Et&&i.texSubImage2D(e.TEXTURE_2D,it,0,0,$.width,$.height,ot,D,$.data):i.texImage2D(e.TEXTURE_2D,it,Z,$.width,$.height,0,ot,D,$.data)}else if(b.isDataArrayTexture)if(nt){if(rt&&i.texStorage3D(e.TEXTURE_2D_ARRAY,Ht,Z,Y.width,Y.height,Y.depth),Et)if(b.layerUpdates.size>0){let it=pd(Y.width,Y.height,b.format,b.type);for(let At of b.layerUpdates){let kt=Y.data.subarray(At*it/Y.data.BYTES_PER_ELEMENT,(At+1)*it/Y.data.BYTES_PER_ELEMENT);i.texSubImage3D(e.TEXTURE_2D_ARRAY,0,0,0,At,Y.width,Y.height,1,ot,D,kt)}b.clearLayerUpdates()}else i.texSubImage3D(e.TEXTURE_2D_ARRAY,0,0,0,0,Y.width,Y.height,Y.depth,ot,D,Y.data)}else i.texImage3D(e.TEXTURE_2D_ARRAY,0,Z,Y.width,Y.height,Y.depth,0,ot,D,Y.data);else if(b.isData3DTexture)nt?(rt&&i.texStorage3D(e.TEXTURE_3D,Ht,Z,Y.width,Y.height,Y.depth),Et&&i.texSubImage3D(e.TEXTURE_3D,0,0,0,0,Y.width,Y.height,Y.depth,ot,D,Y.data)):i.texImage3D(e.TEXTURE_3D,0,Z,Y.width,Y.height,Y.depth,0,ot,D,Y.data);else if(b.isFramebufferTexture){if(rt)if(nt)i.texStorage2D(e.TEXTURE_2D,Ht,Z,Y.width,Y.height);else{let it=Y.width,At=Y.height;for(let kt=0;kt<Ht;kt++)i.texImage2D(e.TEXTURE_2D,kt,Z,it,At,0,ot,D,null),it>>=1,At>>=1}}else if(b.isHTMLTexture){if("texElementImage2D"in e){let it=e.canvas;if(it.hasAttribute("layoutsubtree")||it.setAttribute("layoutsubtree","true"),Y.parentNode!==it){it.appendChild(Y),u.add(b),it.onpaint=At=>{let kt=At.changedElements;for(let gt of u)kt.includes(gt.image)&&(gt.needsUpdate=!0)},it.requestPaint();return}if(e.texElementImage2D.length===3)e.texElementImage2D(e.TEXTURE_2D,e.RGBA8,Y);else{let kt=e.RGBA,gt=e.RGBA,ue=e.UNSIGNED_BYTE;e.texElementImage2D(e.TEXTURE_2D,0,kt,gt,ue,Y)}e.texParameteri(e.TEXTURE_2D,e.TEXTURE_MIN_FILTER,e.LINEAR),e.texParameteri(e.TEXTURE_2D,e.TEXTURE_WRAP_S,e.CLAMP_TO_EDGE),e.texParameteri(e.TEXTURE_2D,e.TEXTURE_WRAP_T,e.CLAMP_TO_EDGE)}}else if(at.length>0){if(nt&&rt){let it=Ut(at[0]);i.texStorage2D(e.TEXTURE_2D,Ht,Z,it.width,it.height)}for(let it=0,At=at.length;it<At;it++)$=at[it],nt?Et&&i.texSubImage2D(e.TEXTURE_2D,it,0,0,ot,D,$):i.texImage2D(e.TEXTURE_2D,it,Z,ot,D,$);b.generateMipmaps=!1}else if(nt){if(rt){let it=Ut(Y);i.texStorage2D(e.TEXTURE_2D,Ht,Z,it.width,it.height)}Et&&i.texSubImage2D(e.TEXTURE_2D,0,0,0,ot,D,Y)}else i.texImage2D(e.TEXTURE_2D,0,Z,ot,D,Y);S(b)&&b.mipmapsAutoUpdate===!0&&v(et),ut.__version=st.version,b.onUpdate&&b.onUpdate(b)}I.__version=b.version}function Mi(I,b,z){if(b.image.length!==6)return;let et=_e(I,b),J=b.source;i.bindTexture(e.TEXTURE_CUBE_MAP,I.__webglTexture,e.TEXTURE0+z);let st=n.get(J);if(J.version!==st.__version||et===!0){i.activeTexture(e.TEXTURE0+z);let ut=Wt.getPrimaries(Wt.workingColorSpace),q=b.colorSpace===$n?null:Wt.getPrimaries(b.colorSpace),Y=b.colorSpace===$n||ut===q?e.NONE:e.BROWSER_DEFAULT_WEBGL;i.pixelStorei(e.UNPACK_FLIP_Y_WEBGL,b.flipY),i.pixelStorei(e.UNPACK_PREMULTIPLY_ALPHA_WEBGL,b.premultiplyAlpha),i.pixelStorei(e.UNPACK_ALIGNMENT,b.unpackAlignment),i.pixelStorei(e.UNPACK_COLORSPACE_CONVERSION_WEBGL,Y);let ot=b.isCompressedTexture||b.image[0].isCompressedTexture,D=b.image[0]&&b.image[0].isDataTexture,Z=[];for(let gt=0;gt<6;gt++)!ot&&!D?Z[gt]=y(b.image[gt],!0,s.maxCubemapSize):Z[gt]=D?b.image[gt].image:b.image[gt],Z[gt]=It(b,Z[gt]);let $=Z[0],at=r.convert(b.format,b.colorSpace),nt=r.convert(b.type),rt=T(b.internalFormat,at,nt,b.normalized,b.colorSpace),Et=b.isVideoTexture!==!0,Ht=st.__version===void 0||et===!0,it=J.dataReady,At=M(b,$);Qt(e.TEXTURE_CUBE_MAP,b);let kt;if(b.isDepthTexture){if(rt=_(b.format===Xn,b.type),Ht)if(Et)i.texStorage2D(e.TEXTURE_CUBE_MAP,1,rt,$.width,$.height);else for(let gt=0;gt<6;gt++)i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,0,rt,$.width,$.height,0,at,nt,null)}else if(ot){Et&&Ht&&i.texStorage2D(e.TEXTURE_CUBE_MAP,At,rt,$.width,$.height);for(let gt=0;gt<6;gt++){kt=Z[gt].mipmaps;for(let ue=0;ue<kt.length;ue++){let je=kt[ue];b.format!==hn?at!==null?Et?it&&i.compressedTexSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue,0,0,je.width,je.height,at,je.data):i.compressedTexImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue,rt,je.width,je.height,0,je.data):Ct("WebGLRenderer: Attempt to load unsupported compressed texture format in .setTextureCube()"):Et?it&&i.texSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue,0,0,je.width,je.height,at,nt,je.data):i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue,rt,je.width,je.height,0,at,nt,je.data)}}}else{if(kt=b.mipmaps,Et&&Ht){kt.length>0&&At++;let gt=Ut(Z[0]);i.texStorage2D(e.TEXTURE_CUBE_MAP,At,rt,gt.width,gt.height)}for(let gt=0;gt<6;gt++)if(D){Et?it&&i.texSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,0,0,0,Z[gt].width,Z[gt].height,at,nt,Z[gt].data):i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,0,rt,Z[gt].width,Z[gt].height,0,at,nt,Z[gt].data);for(let ue=0;ue<kt.length;ue++){let Jn=kt[ue].image[gt].image;Et?it&&i.texSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue+1,0,0,Jn.width,Jn.height,at,nt,Jn.data):i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue+1,rt,Jn.width,Jn.height,0,at,nt,Jn.data)}}else{Et?it&&i.texSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,0,0,0,at,nt,Z[gt]):i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,0,rt,at,nt,Z[gt]);for(let ue=0;ue<kt.length;ue++){let je=kt[ue];Et?it&&i.texSubImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue+1,0,0,at,nt,je.image[gt]):i.texImage2D(e.TEXTURE_CUBE_MAP_POSITIVE_X+gt,ue+1,rt,at,nt,je.image[gt])}}}S(b)&&b.mipmapsAutoUpdate===!0&&v(e.TEXTURE_CUBE_MAP),st.__version=J.version,b.onUpdate&&b.onUpdate(b)}I.__version=b.version}function Ie(I,b,z,et,J,st){let ut=r.convert(z.format,z.colorSpace),q=r.convert(z.type),Y=T(z.internalFormat,ut,q,z.normalized,z.colorSpace),ot=n.get(b),D=n.get(z);if(D.__renderTarget=b,!ot.__hasExternalTextures){let Z=Math.max(1,b.width>>st),$=Math.max(1,b.height>>st);J===e.TEXTURE_3D||J===e.TEXTURE_2D_ARRAY?i.texImage3D(J,st,Y,Z,$,b.depth,0,ut,q,null):i.texImage2D(J,st,Y,Z,$,0,ut,q,null)}i.bindFramebuffer(e.FRAMEBUFFER,I),pt(b)?a.framebufferTexture2DMultisampleEXT(e.FRAMEBUFFER,et,J,D.__webglTexture,0,Re(b)):(J===e.TEXTURE_2D||J>=e.TEXTURE_CUBE_MAP_POSITIVE_X&&J<=e.TEXTURE_CUBE_MAP_NEGATIVE_Z)&&e.framebufferTexture2D(e.FRAMEBUFFER,et,J,D.__webglTexture,st),i.bindFramebuffer(e.FRAMEBUFFER,null)}function dn(I,b,z){if(e.bindRenderbuffer(e.RENDERBUFFER,I),b.depthBuffer){let et=b.depthTexture,J=et&&et.isDepthTexture?et.type:null,st=_(b.stencilBuffer,J),ut=b.stencilBuffer?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT;pt(b)?a.renderbufferStorageMultisampleEXT(e.RENDERBUFFER,Re(b),st,b.width,b.height):z?e.renderbufferStorageMultisample(e.RENDERBUFFER,Re(b),st,b.width,b.height):e.renderbufferStorage(e.RENDERBUFFER,st,b.width,b.height),e.framebufferRenderbuffer(e.FRAMEBUFFER,ut,e.RENDERBUFFER,I)}else{let et=b.textures;for(let J=0;J<et.length;J++){let st=et[J],ut=r.convert(st.format,st.colorSpace),q=r.convert(st.type),Y=T(st.internalFormat,ut,q,st.normalized,st.colorSpace);pt(b)?a.renderbufferStorageMultisampleEXT(e.RENDERBUFFER,Re(b),Y,b.width,b.height):z?e.renderbufferStorageMultisample(e.RENDERBUFFER,Re(b),Y,b.width,b.height):e.renderbufferStorage(e.RENDERBUFFER,Y,b.width,b.height)}}e.bindRenderbuffer(e.RENDERBUFFER,null)}function Je(I,b,z){let et=b.isWebGLCubeRenderTarget===!0;if(i.bindFramebuffer(e.FRAMEBUFFER,I),!(b.depthTexture&&b.depthTexture.isDepthTexture))throw new Error("THREE.WebGLTextures: renderTarget.depthTexture must be an instance of THREE.DepthTexture.");let J=n.get(b.depthTexture);J.__renderTarget=b;let st=et?b.depthTexture.image[0]:b.depthTexture.image;(!J.__webglTexture||st.width!==b.width||st.height!==b.height)&&(st.width=b.width,st.height=b.height,b.depthTexture.needsUpdate=!0),et?mt(b.depthTexture,0):ht(b.depthTexture,0);let ut=J.__webglTexture,q=Re(b),Y=et?e.TEXTURE_CUBE_MAP_POSITIVE_X+z:e.TEXTURE_2D,ot=b.depthTexture.format===Xn?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT;if(b.depthTexture.format===Hn)pt(b)?a.framebufferTexture2DMultisampleEXT(e.FRAMEBUFFER,ot,Y,ut,0,q):e.framebufferTexture2D(e.FRAMEBUFFER,ot,Y,ut,0);else if(b.depthTexture.format===Xn)pt(b)?a.framebufferTexture2DMultisampleEXT(e.FRAMEBUFFER,ot,Y,ut,0,q):e.framebufferTexture2D(e.FRAMEBUFFER,ot,Y,ut,0);else throw new Error("THREE.WebGLTextures: Unknown depthTexture format.")}function Hi(I){let b=n.get(I),z=I.isWebGLCubeRenderTarget===!0;if(b.__boundDepthTexture!==I.depthTexture){let et=I.depthTexture;if(b.__depthDisposeCallback&&b.__depthDisposeCallback(),et){let J=()=>{delete b.__boundDepthTexture,delete b.__depthDisposeCallback,et.removeEventListener("dispose",J)};et.addEventListener("dispose",J),b.__depthDisposeCallback=J}b.__boundDepthTexture=et}if(I.depthTexture&&!b.__autoAllocateDepthBuffer)if(z)for(let et=0;et<6;et++)Je(b.__webglFramebuffer[et],I,et);else I.texture.mipmaps.length>0?Je(b.__webglFramebuffer[0],I,0):Je(b.__webglFramebuffer,I,0);else if(z){b.__webglDepthbuffer=[];for(let et=0;et<6;et++)if(i.bindFramebuffer(e.FRAMEBUFFER,b.__webglFramebuffer[et]),b.__webglDepthbuffer[et]===void 0)b.__webglDepthbuffer[et]=e.createRenderbuffer(),dn(b.__webglDepthbuffer[et],I,!1);else{let J=I.stencilBuffer?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT,st=b.__webglDepthbuffer[et];e.bindRenderbuffer(e.RENDERBUFFER,st),e.framebufferRenderbuffer(e.FRAMEBUFFER,J,e.RENDERBUFFER,st)}}else if(I.texture.mipmaps.length>0?i.bindFramebuffer(e.FRAMEBUFFER,b.__webglFramebuffer[0]):i.bindFramebuffer(e.FRAMEBUFFER,b.__webglFramebuffer),b.__webglDepthbuffer===void 0)b.__webglDepthbuffer=e.createRenderbuffer(),dn(b.__webglDepthbuffer,I,!1);else{let J=I.stencilBuffer?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT,st=b.__webglDepthbuffer;e.bindRenderbuffer(e.RENDERBUFFER,st),e.framebufferRenderbuffer(e.FRAMEBUFFER,J,e.RENDERBUFFER,st)}i.bindFramebuffer(e.FRAMEBUFFER,null)}function Vi(I,b,z){let et=n.get(I);b!==void 0&&Ie(et.__webglFramebuffer,I,I.texture,e.COLOR_ATTACHMENT0,e.TEXTURE_2D,0),z!==void 0&&Hi(I)}function Gi(I){let b=I.texture,z=n.get(I),et=n.get(b);I.addEventListener("dispose",P),L(I);let J=I.textures,st=I.isWebGLCubeRenderTarget===!0,ut=J.length>1;if(ut||(et.__webglTexture===void 0&&(et.__webglTexture=e.createTexture()),et.__version=b.version,o.memory.textures++),st){z.__webglFramebuffer=[];for(let q=0;q<6;q++)if(b.mipmaps.length>0){z.__webglFramebuffer[q]=[];for(let Y=0;Y<b.mipmaps.length;Y++)z.__webglFramebuffer[q][Y]=e.createFramebuffer()}else z.__webglFramebuffer[q]=e.createFramebuffer()}else{if(b.mipmaps.length>0){z.__webglFramebuffer=[];for(let q=0;q<b.mipmaps.length;q++)z.__webglFramebuffer[q]=e.createFramebuffer()}else z.__webglFramebuffer=e.createFramebuffer();if(ut)for(let q=0,Y=J.length;q<Y;q++){let ot=n.get(J[q]);ot.__webglTexture===void 0&&(ot.__webglTexture=e.createTexture(),o.memory.textures++)}if(I.samples>0&&pt(I)===!1){z.__webglMultisampledFramebuffer=e.createFramebuffer(),z.__webglColorRenderbuffer=[],i.bindFramebuffer(e.FRAMEBUFFER,z.__webglMultisampledFramebuffer);for(let q=0;q<J.length;q++){let Y=J[q];z.__webglColorRenderbuffer[q]=e.createRenderbuffer(),e.bindRenderbuffer(e.RENDERBUFFER,z.__webglColorRenderbuffer[q]);let ot=r.convert(Y.format,Y.colorSpace),D=r.convert(Y.type),Z=T(Y.internalFormat,ot,D,Y.normalized,Y.colorSpace,I.isXRRenderTarget===!0),$=Re(I);e.renderbufferStorageMultisample(e.RENDERBUFFER,$,Z,I.width,I.height),e.framebufferRenderbuffer(e.FRAMEBUFFER,e.COLOR_ATTACHMENT0+q,e.RENDERBUFFER,z.__webglColorRenderbuffer[q])}e.bindRenderbuffer(e.RENDERBUFFER,null),I.depthBuffer&&(z.__webglDepthRenderbuffer=e.createRenderbuffer(),dn(z.__webglDepthRenderbuffer,I,!0)),i.bindFramebuffer(e.FRAMEBUFFER,null)}}if(st){i.bindTexture(e.TEXTURE_CUBE_MAP,et.__webglTexture),Qt(e.TEXTURE_CUBE_MAP,b);for(let q=0;q<6;q++)if(b.mipmaps.length>0)for(let Y=0;Y<b.mipmaps.length;Y++)Ie(z.__webglFramebuffer[q][Y],I,b,e.COLOR_ATTACHMENT0,e.TEXTURE_CUBE_MAP_POSITIVE_X+q,Y);else Ie(z.__webglFramebuffer[q],I,b,e.COLOR_ATTACHMENT0,e.TEXTURE_CUBE_MAP_POSITIVE_X+q,0);S(b)?v(e.TEXTURE_CUBE_MAP):b.mipmaps.length>0&&e.texParameteri(e.TEXTURE_CUBE_MAP,e.TEXTURE_MAX_LEVEL,b.mipmaps.length-1),i.unbindTexture()}else if(ut){for(let q=0,Y=J.length;q<Y;q++){let ot=J[q],D=n.get(ot),Z=e.TEXTURE_2D;(I.isWebGL3DRenderTarget||I.isWebGLArrayRenderTarget)&&(Z=I.isWebGL3DRenderTarget?e.TEXTURE_3D:e.TEXTURE_2D_ARRAY),i.bindTexture(Z,D.__webglTexture),Qt(Z,ot),Ie(z.__webglFramebuffer,I,ot,e.COLOR_ATTACHMENT0+q,Z,0),S(ot)&&v(Z)}i.unbindTexture()}else{let q=e.TEXTURE_2D;if((I.isWebGL3DRenderTarget||I.isWebGLArrayRenderTarget)&&(q=I.isWebGL3DRenderTarget?e.TEXTURE_3D:e.TEXTURE_2D_ARRAY),i.bindTexture(q,et.__webglTexture),Qt(q,b),b.mipmaps.length>0)for(let Y=0;Y<b.mipmaps.length;Y++)Ie(z.__webglFramebuffer[Y],I,b,e.COLOR_ATTACHMENT0,q,Y);else Ie(z.__webglFramebuffer,I,b,e.COLOR_ATTACHMENT0,q,0);S(b)?v(q):b.mipmaps.length>0&&e.texParameteri(q,e.TEXTURE_MAX_LEVEL,b.mipmaps.length-1),i.unbindTexture()}I.depthBuffer&&Hi(I)}function F(I){let b=I.textures;for(let z=0,et=b.length;z<et;z++){let J=b[z];if(S(J)&&J.mipmapsAutoUpdate===!0){let st=w(I),ut=n.get(J).__webglTexture;i.bindTexture(st,ut),v(st),i.unbindTexture()}}}let Wi=[];function Ae(I){if(I.samples>0){if(pt(I)===!1){let b=I.textures,z=I.width,et=I.height,J=e.COLOR_BUFFER_BIT,st=I.stencilBuffer?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT,ut=n.get(I),q=b.length>1;if(q)for(let ot=0;ot<b.length;ot++)i.bindFramebuffer(e.FRAMEBUFFER,ut.__webglMultisampledFramebuffer),e.framebufferRenderbuffer(e.FRAMEBUFFER,e.COLOR_ATTACHMENT0+ot,e.RENDERBUFFER,null),i.bindFramebuffer(e.FRAMEBUFFER,ut.__webglFramebuffer),e.framebufferTexture2D(e.DRAW_FRAMEBUFFER,e.COLOR_ATTACHMENT0+ot,e.TEXTURE_2D,null,0);i.bindFramebuffer(e.READ_FRAMEBUFFER,ut.__webglMultisampledFramebuffer),I.texture.mipmaps.length>0?i.bindFramebuffer(e.DRAW_FRAMEBUFFER,ut.__webglFramebuffer[0]):i.bindFramebuffer(e.DRAW_FRAMEBUFFER,ut.__webglFramebuffer);for(let ot=0;ot<b.length;ot++){if(I.resolveDepthBuffer&&(I.depthBuffer&&(J|=e.DEPTH_BUFFER_BIT),I.stencilBuffer&&I.resolveStencilBuffer&&(J|=e.STENCIL_BUFFER_BIT)),q){e.framebufferRenderbuffer(e.READ_FRAMEBUFFER,e.COLOR_ATTACHMENT0,e.RENDERBUFFER,ut.__webglColorRenderbuffer[ot]);let D=n.get(b[ot]).__webglTexture;e.framebufferTexture2D(e.DRAW_FRAMEBUFFER,e.COLOR_ATTACHMENT0,e.TEXTURE_2D,D,0)}e.blitFramebuffer(0,0,z,et,0,0,z,et,J,e.NEAREST),l===!0&&(Wi.length=0,Wi.push(e.COLOR_ATTACHMENT0+ot),I.depthBuffer&&I.storeMultisampledDepthBuffer===!1&&Wi.push(st),e.invalidateFramebuffer(e.READ_FRAMEBUFFER,Wi))}if(i.bindFramebuffer(e.READ_FRAMEBUFFER,null),i.bindFramebuffer(e.DRAW_FRAMEBUFFER,null),q)for(let ot=0;ot<b.length;ot++){i.bindFramebuffer(e.FRAMEBUFFER,ut.__webglMultisampledFramebuffer),e.framebufferRenderbuffer(e.FRAMEBUFFER,e.COLOR_ATTACHMENT0+ot,e.RENDERBUFFER,ut.__webglColorRenderbuffer[ot]);let D=n.get(b[ot]).__webglTexture;i.bindFramebuffer(e.FRAMEBUFFER,ut.__webglFramebuffer),e.framebufferTexture2D(e.DRAW_FRAMEBUFFER,e.COLOR_ATTACHMENT0+ot,e.TEXTURE_2D,D,0)}i.bindFramebuffer(e.DRAW_FRAMEBUFFER,ut.__webglMultisampledFramebuffer)}else if(I.depthBuffer&&I.storeMultisampledDepthBuffer===!1&&l){let b=I.stencilBuffer?e.DEPTH_STENCIL_ATTACHMENT:e.DEPTH_ATTACHMENT;e.invalidateFramebuffer(e.DRAW_FRAMEBUFFER,[b])}}}function Re(I){return Math.min(s.maxSamples,I.samples)}function pt(I){let b=n.get(I);return I.samples>0&&t.has("WEBGL_multisampled_render_to_texture")===!0&&b.__useRenderToTexture!==!1}function We(I){let b=o.render.frame;h.get(I)!==b&&(h.set(I,b),I.update())}function It(I,b){let z=I.colorSpace,et=I.format,J=I.type;return I.isCompressedTexture===!0||I.isVideoTexture===!0||z!==Vs&&z!==$n&&(Wt.getTransfer(z)===le?(et!==hn||J!==Bi)&&Ct("WebGLTextures: sRGB encoded textures have to use RGBAFormat and UnsignedByteType."):Lt("WebGLTextures: Unsupported texture color space:",z)),b}function Ut(I){return typeof HTMLImageElement<"u"&&I instanceof HTMLImageElement?(c.width=I.naturalWidth||I.width,c.height=I.naturalHeight||I.height):typeof VideoFrame<"u"&&I instanceof VideoFrame?(c.width=I.displayWidth,c.height=I.displayHeight):(c.width=I.width,c.height=I.height),c}this.allocateTextureUnit=Dt,this.resetTextureUnits=j,this.getTextureUnits=Q,this.setTextureUnits=vt,this.setTexture2D=ht,this.setTexture2DArray=xt,this.setTexture3D=Rt,this.setTextureCube=mt,this.rebindTextures=Vi,this.setupRenderTarget=Gi,this.updateRenderTargetMipmap=F,this.updateMultisampleRenderTarget=Ae,this.setupDepthRenderbuffer=Hi,this.setupFrameBufferTexture=Ie,this.useMultisampledRTT=pt,this.dispose=B}function CE(e,t){function i(n,s=$n){let r,o=Wt.getTransfer(s);if(n===Bi)return e.UNSIGNED_BYTE;if(n===pc)return e.UNSIGNED_SHORT_4_4_4_4;if(n===mc)return e.UNSIGNED_SHORT_5_5_5_1;if(n===Kf)return e.UNSIGNED_INT_5_9_9_9_REV;if(n===Zf)return e.UNSIGNED_INT_10F_11F_11F_REV;if(n===qf)return e.BYTE;if(n===Yf)return e.SHORT;if(n===Hr)return e.UNSIGNED_SHORT;if(n===dc)return e.INT;if(n===an)return e.UNSIGNED_INT;if(n===ln)return e.FLOAT;if(n===cn)return e.HALF_FLOAT;if(n===Jf)return e.ALPHA;if(n===jf)return e.RGB;if(n===hn)return e.RGBA;if(n===Hn)return e.DEPTH_COMPONENT;if(n===Xn)return e.DEPTH_STENCIL;if(n===Qf)return e.RED;if(n===gc)return e.RED_INTEGER;if(n===fs)return e.RG;if(n===_c)return e.RG_INTEGER;if(n===yc)return e.RGBA_INTEGER;if(n===la||n===ca||n===ha||n===ua)if(o===le)if(r=t.get("WEBGL_compressed_texture_s3tc_srgb"),r!==null){if(n===la)return r.COMPRESSED_SRGB_S3TC_DXT1_EXT;if(n===ca)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT1_EXT;if(n===ha)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT3_EXT;if(n===ua)return r.COMPRESSED_SRGB_ALPHA_S3TC_DXT5_EXT}else return null;else if(r=t.get("WEBGL_compressed_texture_s3tc"),r!==null){if(n===la)return r.COMPRESSED_RGB_S3TC_DXT1_EXT;if(n===ca)return r.COMPRESSED_RGBA_S3TC_DXT1_EXT;if(n===ha)return r.COMPRESSED_RGBA_S3TC_DXT3_EXT;if(n===ua)return r.COMPRESSED_RGBA_S3TC_DXT5_EXT}else return null;if(n===xc||n===vc||n===Sc||n===wc)if(r=t.get("WEBGL_compressed_texture_pvrtc"),r!==null){if(n===xc)return r.COMPRESSED_RGB_PVRTC_4BPPV1_IMG;if(n===vc)return r.COMPRESSED_RGB_PVRTC_2BPPV1_IMG;if(n===Sc)return r.COMPRESSED_RGBA_PVRTC_4BPPV1_IMG;if(n===wc)return r.COMPRESSED_RGBA_PVRTC_2BPPV1_IMG}else return null;if(n===Mc||n===bc||n===Tc||n===Ec||n===Ac||n===fa||n===Rc)if(r=t.get("WEBGL_compressed_texture_etc"),r!==null){if(n===Mc||n===bc)return o===le?r.COMPRESSED_SRGB8_ETC2:r.COMPRESSED_RGB8_ETC2;if(n===Tc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ETC2_EAC:r.COMPRESSED_RGBA8_ETC2_EAC;if(n===Ec)return r.COMPRESSED_R11_EAC;if(n===Ac)return r.COMPRESSED_SIGNED_R11_EAC;if(n===fa)return r.COMPRESSED_RG11_EAC;if(n===Rc)return r.COMPRESSED_SIGNED_RG11_EAC}else return null;if(n===Cc||n===Pc||n===Ic||n===Lc||n===Nc||n===Dc||n===Oc||n===Uc||n===Fc||n===Bc||n===kc||n===zc||n===Hc||n===Vc)if(r=t.get("WEBGL_compressed_texture_astc"),r!==null){if(n===Cc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_4x4_KHR:r.COMPRESSED_RGBA_ASTC_4x4_KHR;if(n===Pc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_5x4_KHR:r.COMPRESSED_RGBA_ASTC_5x4_KHR;if(n===Ic)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_5x5_KHR:r.COMPRESSED_RGBA_ASTC_5x5_KHR;if(n===Lc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_6x5_KHR:r.COMPRESSED_RGBA_ASTC_6x5_KHR;if(n===Nc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_6x6_KHR:r.COMPRESSED_RGBA_ASTC_6x6_KHR;if(n===Dc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x5_KHR:r.COMPRESSED_RGBA_ASTC_8x5_KHR;if(n===Oc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x6_KHR:r.COMPRESSED_RGBA_ASTC_8x6_KHR;if(n===Uc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_8x8_KHR:r.COMPRESSED_RGBA_ASTC_8x8_KHR;if(n===Fc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x5_KHR:r.COMPRESSED_RGBA_ASTC_10x5_KHR;if(n===Bc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x6_KHR:r.COMPRESSED_RGBA_ASTC_10x6_KHR;if(n===kc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x8_KHR:r.COMPRESSED_RGBA_ASTC_10x8_KHR;if(n===zc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_10x10_KHR:r.COMPRESSED_RGBA_ASTC_10x10_KHR;if(n===Hc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_12x10_KHR:r.COMPRESSED_RGBA_ASTC_12x10_KHR;if(n===Vc)return o===le?r.COMPRESSED_SRGB8_ALPHA8_ASTC_12x12_KHR:r.COMPRESSED_RGBA_ASTC_12x12_KHR}else return null;if(n===Gc||n===Wc||n===Xc)if(r=t.get("EXT_texture_compression_bptc"),r!==null){if(n===Gc)return o===le?r.COMPRESSED_SRGB_ALPHA_BPTC_UNORM_EXT:r.COMPRESSED_RGBA_BPTC_UNORM_EXT;if(n===Wc)return r.COMPRESSED_RGB_BPTC_SIGNED_FLOAT_EXT;if(n===Xc)return r.COMPRESSED_RGB_BPTC_UNSIGNED_FLOAT_EXT}else return null;if(n===$c||n===qc||n===da||n===Yc)if(r=t.get("EXT_texture_compression_rgtc"),r!==null){if(n===$c)return r.COMPRESSED_RED_RGTC1_EXT;if(n===qc)return r.COMPRESSED_SIGNED_RED_RGTC1_EXT;if(n===da)return r.COMPRESSED_RED_GREEN_RGTC2_EXT;if(n===Yc)return r.COMPRESSED_SIGNED_RED_GREEN_RGTC2_EXT}else return null;return n===Js?e.UNSIGNED_INT_24_8:e[n]!==void 0?e[n]:null}return{convert:i}}var PE=`
void main() {

	gl_Position = vec4( position, 1.0 );

}`,IE=`
uniform sampler2DArray depthColor;
uniform float depthWidth;
uniform float depthHeight;

void main() {

	vec2 coord = vec2( gl_FragCoord.x / depthWidth, gl_FragCoord.y / depthHeight );

	if ( coord.x >= 1.0 ) {

		gl_FragDepth = texture( depthColor, vec3( coord.x - 1.0, coord.y, 1 ) ).r;

	} else {

		gl_FragDepth = texture( depthColor, vec3( coord.x, coord.y, 0 ) ).r;

	}

}`,Md=class{constructor(){this.texture=null,this.mesh=null,this.depthNear=0,this.depthFar=0}init(t,i){if(this.texture===null){let n=new Qo(t.texture);(t.depthNear!==i.depthNear||t.depthFar!==i.depthFar)&&(this.depthNear=t.depthNear,this.depthFar=t.depthFar),this.texture=n}}getMesh(t){if(this.texture!==null&&this.mesh===null){let i=t.cameras[0].viewport,n=new qe({vertexShader:PE,fragmentShader:IE,uniforms:{depthColor:{value:this.texture},depthWidth:{value:i.z},depthHeight:{value:i.w}}});this.mesh=new pe(new $s(20,20),n)}return this.mesh}reset(){this.texture=null,this.mesh=null}getDepthTexture(){return this.texture}},bd=class extends rn{constructor(t,i){super();let n=this,s=null,r=1,o=null,a="local-floor",l=1,c=null,h=null,u=null,f=null,d=null,g=null,x=typeof XRWebGLBinding<"u",p=new Md,m={},y=i.getContextAttributes(),S=null,v=null,w=[],T=[],_=new Tt,M=null,L=null,A=new yi;A.viewport=new be;let R=new yi;R.viewport=new be;let P=[A,R],O=new cc,N=null,B=null;this.cameraAutoUpdate=!0,this.enabled=!1,this.isPresenting=!1,this.getController=function(K){let ht=w[K];return ht===void 0&&(ht=new Nr,w[K]=ht),ht.getTargetRaySpace()},this.getControllerGrip=function(K){let ht=w[K];return ht===void 0&&(ht=new Nr,w[K]=ht),ht.getGripSpace()},this.getHand=function(K){let ht=w[K];return ht===void 0&&(ht=new Nr,w[K]=ht),ht.getHandSpace()};function V(K){let ht=T.indexOf(K.inputSource);if(ht===-1)return;let xt=w[ht];xt!==void 0&&(xt.update(K.inputSource,K.frame,c||o),xt.dispatchEvent({type:K.type,data:K.inputSource}))}function G(){s.removeEventListener("select",V),s.removeEventListener("selectstart",V),s.removeEventListener("selectend",V),s.removeEventListener("squeeze",V),s.removeEventListener("squeezestart",V),s.removeEventListener("squeezeend",V),s.removeEventListener("end",G),s.removeEventListener("inputsourceschange",tt);for(let K=0;K<w.length;K++){let ht=T[K];ht!==null&&(T[K]=null,w[K].disconnect(ht))}N=null,B=null,p.reset();for(let K in m)delete m[K];if(t.setRenderTarget(S),d=null,f=null,u=null,s=null,v=null,Dt.stop(),n.isPresenting=!1,t.setPixelRatio(M),t.setSize(_.width,_.height,!1),L!==null){let K=L.camera;K.fov=L.fov,K.zoom=L.zoom,K.updateProjectionMatrix(),L=null}n.dispatchEvent({type:"sessionend"})}this.setFramebufferScaleFactor=function(K){r=K,n.isPresenting===!0&&Ct("WebXRManager: Cannot change framebuffer scale while presenting.")},this.setReferenceSpaceType=function(K){a=K,n.isPresenting===!0&&Ct("WebXRManager: Cannot change reference space type while presenting.")},this.getReferenceSpace=function(){return c||o},this.setReferenceSpace=function(K){c=K},this.getBaseLayer=function(){return f!==null?f:d},this.getBinding=function(){return u===null&&x&&(u=new XRWebGLBinding(s,i)),u},this.getFrame=function(){return g},this.getSession=function(){return s},this.setSession=async function(K){if(s=K,s!==null){if(S=t.getRenderTarget(),s.addEventListener("select",V),s.addEventListener("selectstart",V),s.addEventListener("selectend",V),s.addEventListener("squeeze",V),s.addEventListener("squeezestart",V),s.addEventListener("squeezeend",V),s.addEventListener("end",G),s.addEventListener("inputsourceschange",tt),y.xrCompatible!==!0&&await i.makeXRCompatible(),M=t.getPixelRatio(),t.getSize(_),x&&"createProjectionLayer"in XRWebGLBinding.prototype){let xt=null,Rt=null,mt=null;y.depth&&(mt=y.stencil?i.DEPTH24_STENCIL8:i.DEPTH_COMPONENT24,xt=y.stencil?Xn:Hn,Rt=y.stencil?Js:an);let Ot={colorFormat:i.RGBA8,depthFormat:mt,scaleFactor:r};u=this.getBinding(),f=u.createProjectionLayer(Ot),s.updateRenderState({layers:[f]}),t.setPixelRatio(1),t.setSize(f.textureWidth,f.textureHeight,!1),v=new vi(f.textureWidth,f.textureHeight,{format:hn,type:Bi,depthTexture:new Gn(f.textureWidth,f.textureHeight,Rt,void 0,void 0,void 0,void 0,void 0,void 0,xt),stencilBuffer:y.stencil,colorSpace:t.outputColorSpace,samples:y.antialias?4:0,resolveDepthBuffer:f.ignoreDepthValues===!1,resolveStencilBuffer:f.ignoreDepthValues===!1,storeMultisampledDepthBuffer:f.ignoreDepthValues===!1,storeMultisampledStencilBuffer:f.ignoreDepthValues===!1})}else{let xt={antialias:y.antialias,alpha:!0,depth:y.depth,stencil:y.stencil,framebufferScaleFactor:r};d=new XRWebGLLayer(s,i,xt),s.updateRenderState({baseLayer:d}),t.setPixelRatio(1),t.setSize(d.framebufferWidth,d.framebufferHeight,!1),v=new vi(d.framebufferWidth,d.framebufferHeight,{format:hn,type:Bi,colorSpace:t.outputColorSpace,stencilBuffer:y.stencil,resolveDepthBuffer:d.ignoreDepthValues===!1,resolveStencilBuffer:d.ignoreDepthValues===!1,storeMultisampledDepthBuffer:d.ignoreDepthValues===!1,storeMultisampledStencilBuffer:d.ignoreDepthValues===!1})}v.isXRRenderTarget=!0,this.setFoveation(l),c=null,o=await s.requestReferenceSpace(a),Dt.setContext(s),Dt.start(),n.isPresenting=!0,n.dispatchEvent({type:"sessionstart"})}},this.getEnvironmentBlendMode=function(){if(s!==null)return s.environmentBlendMode},this.getDepthTexture=function(){return p.getDepthTexture()};function tt(K){for(let ht=0;ht<K.removed.length;ht++){let xt=K.removed[ht],Rt=T.indexOf(xt);Rt>=0&&(T[Rt]=null,w[Rt].disconnect(xt))}for(let ht=0;ht<K.added.length;ht++){let xt=K.added[ht],Rt=T.indexOf(xt);if(Rt===-1){for(let Ot=0;Ot<w.length;Ot++)if(Ot>=T.length){T.push(xt),Rt=Ot;break}else if(T[Ot]===null){T[Ot]=xt,Rt=Ot;break}if(Rt===-1)break}let mt=w[Rt];mt&&mt.connect(xt)}}function X(K,ht){ht===null?K.matrixWorld.copy(K.matrix):K.matrixWorld.multiplyMatrices(ht.matrixWorld,K.matrix),K.matrixWorldInverse.copy(K.matrixWorld).invert()}this.updateCamera=function(K){if(s===null)return;let ht=K.near,xt=K.far;p.texture!==null&&(p.depthNear>0&&(ht=p.depthNear),p.depthFar>0&&(xt=p.depthFar)),O.near=R.near=A.near=ht,O.far=R.far=A.far=xt,(N!==O.near||B!==O.far)&&(s.updateRenderState({depthNear:O.near,depthFar:O.far}),N=O.near,B=O.far),O.layers.mask=K.layers.mask|6,A.layers.mask=O.layers.mask&-5,R.layers.mask=O.layers.mask&-3;let Rt=K.parent,mt=O.cameras;X(O,Rt);for(let Ot=0;Ot<mt.length;Ot++)X(mt[Ot],Rt);O.projectionMatrix.copy(A.projectionMatrix),O.projectionMatrixInverse.copy(A.projectionMatrixInverse),L===null&&K.isPerspectiveCamera&&(L={camera:K,fov:K.fov,zoom:K.zoom}),j(K,O,Rt)};function j(K,ht,xt){xt===null?K.matrix.copy(ht.matrixWorld):(K.matrix.copy(xt.matrixWorld),K.matrix.invert(),K.matrix.multiply(ht.matrixWorld)),K.matrix.decompose(K.position,K.quaternion,K.scale),K.updateMatrixWorld(!0),K.projectionMatrix.copy(ht.projectionMatrix),K.projectionMatrixInverse.copy(ht.projectionMatrixInverse),K.isPerspectiveCamera&&(K.fov=Pr*2*Math.atan(1/K.projectionMatrix.elements[5]),K.zoom=1)}this.getCamera=function(){return O},this.getFoveation=function(){if(!(f===null&&d===null))return l},this.setFoveation=function(K){l=K,f!==null&&(f.fixedFoveation=K),d!==null&&d.fixedFoveation!==void 0&&(d.fixedFoveation=K)},this.hasDepthSensing=function(){return p.texture!==null},this.getDepthSensingMesh=function(){return p.getMesh(O)},this.getCameraTexture=function(K){return m[K]};let Q=null;function vt(K,ht){if(h=ht.getViewerPose(c||o),g=ht,h!==null){let xt=h.views;d!==null&&(t.setRenderTargetFramebuffer(v,d.framebuffer),t.setRenderTarget(v));let Rt=!1;xt.length!==O.cameras.length&&(O.cameras.length=0,Rt=!0);for(let Pt=0;Pt<xt.length;Pt++){let Qt=xt[Pt],_e=null;if(d!==null)_e=d.getViewport(Qt);else{let si=u.getViewSubImage(f,Qt);_e=si.viewport,Pt===0&&(t.setRenderTargetTextures(v,si.colorTexture,si.depthStencilTexture),t.setRenderTarget(v))}let qt=P[Pt];qt===void 0&&(qt=new yi,qt.layers.enable(Pt),qt.viewport=new be,P[Pt]=qt),qt.matrix.fromArray(Qt.transform.matrix),qt.matrix.decompose(qt.position,qt.quaternion,qt.scale),qt.projectionMatrix.fromArray(Qt.projectionMatrix),qt.projectionMatrixInverse.copy(qt.projectionMatrix).invert(),qt.viewport.set(_e.x,_e.y,_e.width,_e.height),Pt===0&&(O.matrix.copy(qt.matrix),O.matrix.decompose(O.position,O.quaternion,O.scale)),Rt===!0&&O.cameras.push(qt)}let mt=s.enabledFeatures;if(mt&&mt.includes("depth-sensing")&&s.depthUsage=="gpu-optimized"&&x){u=n.getBinding();let Pt=u.getDepthInformation(xt[0]);Pt&&Pt.isValid&&Pt.texture&&p.init(Pt,s.renderState)}if(mt&&mt.includes("camera-access")&&x){t.state.unbindTexture(),u=n.getBinding();for(let Pt=0;Pt<xt.length;Pt++){let Qt=xt[Pt].camera;if(Qt){let _e=m[Qt];_e||(_e=new Qo,m[Qt]=_e);let qt=u.getCameraImage(Qt);_e.sourceTexture=qt}}}}for(let xt=0;xt<w.length;xt++){let Rt=T[xt],mt=w[xt];Rt!==null&&mt!==void 0&&mt.update(Rt,ht,c||o)}Q&&Q(K,ht),ht.detectedPlanes&&n.dispatchEvent({type:"planesdetected",data:ht}),g=null}let Dt=new Y_;Dt.setAnimationLoop(vt),this.setAnimationLoop=function(K){Q=K},this.dispose=function(){}}},LE=new Vt,s0=new Nt;s0.set(-1,0,0,0,1,0,0,0,1);function NE(e,t){function i(p,m){p.matrixAutoUpdate===!0&&p.updateMatrix(),m.value.copy(p.matrix)}function n(p,m){m.color.getRGB(p.fogColor.value,ud(e)),m.isFog?(p.fogNear.value=m.near,p.fogFar.value=m.far):m.isFogExp2&&(p.fogDensity.value=m.density)}function s(p,m,y,S,v){m.isNodeMaterial?m.uniformsNeedUpdate=!1:m.isMeshBasicMaterial?r(p,m):m.isMeshLambertMaterial?(r(p,m),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)):m.isMeshToonMaterial?(r(p,m),u(p,m)):m.isMeshPhongMaterial?(r(p,m),h(p,m),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)):m.isMeshStandardMaterial?(r(p,m),f(p,m),m.isMeshPhysicalMaterial&&d(p,m,v)):m.isMeshMatcapMaterial?(r(p,m),g(p,m)):m.isMeshDepthMaterial?r(p,m):m.isMeshDistanceMaterial?(r(p,m),x(p,m)):m.isMeshNormalMaterial?r(p,m):m.isLineBasicMaterial?(o(p,m),m.isLineDashedMaterial&&a(p,m)):m.isPointsMaterial?l(p,m,y,S):m.isSpriteMaterial?c(p,m):m.isShadowMaterial?(p.color.value.copy(m.color),p.opacity.value=m.opacity):m.isShaderMaterial&&(m.uniformsNeedUpdate=!1)}function r(p,m){p.opacity.value=m.opacity,m.color&&p.diffuse.value.copy(m.color),m.emissive&&p.emissive.value.copy(m.emissive).multiplyScalar(m.emissiveIntensity),m.map&&(p.map.value=m.map,i(m.map,p.mapTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,i(m.alphaMap,p.alphaMapTransform)),m.bumpMap&&(p.bumpMap.value=m.bumpMap,i(m.bumpMap,p.bumpMapTransform),p.bumpScale.value=m.bumpScale,m.side===oi&&(p.bumpScale.value*=-1)),m.normalMap&&(p.normalMap.value=m.normalMap,i(m.normalMap,p.normalMapTransform),p.normalScale.value.copy(m.normalScale),m.side===oi&&p.normalScale.value.negate()),m.displacementMap&&(p.displacementMap.value=m.displacementMap,i(m.displacementMap,p.displacementMapTransform),p.displacementScale.value=m.displacementScale,p.displacementBias.value=m.displacementBias),m.emissiveMap&&(p.emissiveMap.value=m.emissiveMap,i(m.emissiveMap,p.emissiveMapTransform)),m.specularMap&&(p.specularMap.value=m.specularMap,i(m.specularMap,p.specularMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest);let y=t.get(m),S=y.envMap,v=y.envMapRotation;S&&(p.envMap.value=S,p.envMapRotation.value.setFromMatrix4(LE.makeRotationFromEuler(v)).transpose(),S.isCubeTexture&&S.isRenderTargetTexture===!1&&p.envMapRotation.value.premultiply(s0),p.reflectivity.value=m.reflectivity,p.ior.value=m.ior,p.refractionRatio.value=m.refractionRatio),m.lightMap&&(p.lightMap.value=m.lightMap,p.lightMapIntensity.value=m.lightMapIntensity,i(m.lightMap,p.lightMapTransform)),m.aoMap&&(p.aoMap.value=m.aoMap,p.aoMapIntensity.value=m.aoMapIntensity,i(m.aoMap,p.aoMapTransform))}function o(p,m){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,m.map&&(p.map.value=m.map,i(m.map,p.mapTransform))}function a(p,m){p.dashSize.value=m.dashSize,p.totalSize.value=m.dashSize+m.gapSize,p.scale.value=m.scale}function l(p,m,y,S){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,p.size.value=m.size*y,p.scale.value=S*.5,m.map&&(p.map.value=m.map,i(m.map,p.uvTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,i(m.alphaMap,p.alphaMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest)}function c(p,m){p.diffuse.value.copy(m.color),p.opacity.value=m.opacity,p.rotation.value=m.rotation,m.map&&(p.map.value=m.map,i(m.map,p.mapTransform)),m.alphaMap&&(p.alphaMap.value=m.alphaMap,i(m.alphaMap,p.alphaMapTransform)),m.alphaTest>0&&(p.alphaTest.value=m.alphaTest)}function h(p,m){p.specular.value.copy(m.specular),p.shininess.value=Math.max(m.shininess,1e-4)}function u(p,m){m.gradientMap&&(p.gradientMap.value=m.gradientMap)}function f(p,m){p.metalness.value=m.metalness,m.metalnessMap&&(p.metalnessMap.value=m.metalnessMap,i(m.metalnessMap,p.metalnessMapTransform)),p.roughness.value=m.roughness,m.roughnessMap&&(p.roughnessMap.value=m.roughnessMap,i(m.roughnessMap,p.roughnessMapTransform)),m.envMap&&(p.envMapIntensity.value=m.envMapIntensity)}function d(p,m,y){p.ior.value=m.ior,m.diffuseRoughness>0&&(p.diffuseRoughness.value=m.diffuseRoughness,m.diffuseRoughnessMap&&(p.diffuseRoughnessMap.value=m.diffuseRoughnessMap,i(m.diffuseRoughnessMap,p.diffuseRoughnessMapTransform))),m.sheen>0&&(p.sheenColor.value.copy(m.sheenColor).multiplyScalar(m.sheen),p.sheenRoughness.value=m.sheenRoughness,m.sheenColorMap&&(p.sheenColorMap.value=m.sheenColorMap,i(m.sheenColorMap,p.sheenColorMapTransform)),m.sheenRoughnessMap&&(p.sheenRoughnessMap.value=m.sheenRoughnessMap,i(m.sheenRoughnessMap,p.sheenRoughnessMapTransform))),m.clearcoat>0&&(p.clearcoat.value=m.clearcoat,p.clearcoatRoughness.value=m.clearcoatRoughness,m.clearcoatMap&&(p.clearcoatMap.value=m.clearcoatMap,i(m.clearcoatMap,p.clearcoatMapTransform)),m.clearcoatRoughnessMap&&(p.clearcoatRoughnessMap.value=m.clearcoatRoughnessMap,i(m.clearcoatRoughnessMap,p.clearcoatRoughnessMapTransform)),m.clearcoatNormalMap&&(p.clearcoatNormalMap.value=m.clearcoatNormalMap,i(m.clearcoatNormalMap,p.clearcoatNormalMapTransform),p.clearcoatNormalScale.value.copy(m.clearcoatNormalScale),m.side===oi&&p.clearcoatNormalScale.value.negate())),m.dispersion>0&&(p.dispersion.value=m.dispersion),m.retroreflectivity>0&&(p.retroreflectivity.value=m.retroreflectivity),m.iridescence>0&&(p.iridescence.value=m.iridescence,p.iridescenceIOR.value=m.iridescenceIOR,p.iridescenceThicknessMinimum.value=m.iridescenceThicknessMinimum,p.iridescenceThicknessMaximum.value=m.iridescenceThicknessMaximum,m.iridescenceMap&&(p.iridescenceMap.value=m.iridescenceMap,i(m.iridescenceMap,p.iridescenceMapTransform)),m.iridescenceThicknessMap&&(p.iridescenceThicknessMap.value=m.iridescenceThicknessMap,i(m.iridescenceThicknessMap,p.iridescenceThicknessMapTransform))),m.transmission>0&&(p.transmission.value=m.transmission,p.transmissionSamplerMap.value=y.texture,p.transmissionSamplerSize.value.set(y.width,y.height),m.transmissionMap&&(p.transmissionMap.value=m.transmissionMap,i(m.transmissionMap,p.transmissionMapTransform)),p.thickness.value=m.thickness,m.thicknessMap&&(p.thicknessMap.value=m.thicknessMap,i(m.thicknessMap,p.thicknessMapTransform)),p.attenuationDistance.value=m.attenuationDistance,p.attenuationColor.value.copy(m.attenuationColor)),m.anisotropy>0&&(p.anisotropyVector.value.set(m.anisotropy*Math.cos(m.anisotropyRotation),m.anisotropy*Math.sin(m.anisotropyRotation)),m.anisotropyMap&&(p.anisotropyMap.value=m.anisotropyMap,i(m.anisotropyMap,p.anisotropyMapTransform))),p.specularIntensity.value=m.specularIntensity,p.specularColor.value.copy(m.specularColor),m.specularColorMap&&(p.specularColorMap.value=m.specularColorMap,i(m.specularColorMap,p.specularColorMapTransform)),m.specularIntensityMap&&(p.specularIntensityMap.value=m.specularIntensityMap,i(m.specularIntensityMap,p.specularIntensityMapTransform))}function g(p,m){m.matcap&&(p.matcap.value=m.matcap)}function x(p,m){let y=t.get(m).light;p.referencePosition.value.setFromMatrixPosition(y.matrixWorld),p.nearDistance.value=y.shadow.camera.near,p.farDistance.value=y.shadow.camera.far}return{refreshFogUniforms:n,refreshMaterialUniforms:s}}function DE(e,t,i,n){let s={},r={};function o(y,S){let v=S.program;n.uniformBlockBinding(y,v,s[y.id])}function a(y,S){let v=s[y.id];v===void 0&&(g(y),v=l(y),s[y.id]=v,y.addEventListener("dispose",p));let w=S.program;n.updateUBOMapping(y,w);let T=t.render.frame;r[y.id]!==T&&(c(y),r[y.id]=T)}function l(y){let S=e.createBuffer(),v=y.__size,w=y.usage;return e.bindBuffer(e.UNIFORM_BUFFER,S),e.bufferData(e.UNIFORM_BUFFER,v,w),e.bindBuffer(e.UNIFORM_BUFFER,null),S}function c(y){let S=s[y.id],v=y.uniforms,w=y.__cache;e.bindBuffer(e.UNIFORM_BUFFER,S);for(let T=0,_=v.length;T<_;T++){let M=v[T];if(Array.isArray(M))for(let L=0,A=M.length;L<A;L++)h(M[L],T,L,w);else h(M,T,0,w)}e.bindBuffer(e.UNIFORM_BUFFER,null)}function h(y,S,v,w){if(f(y,S,v,w)===!0){let T=y.__offset,_=y.value;if(Array.isArray(_)){let M=0;for(let L=0;L<_.length;L++){let A=_[L],R=x(A,!0);u(A,y.__data,M),M+=R.storage/Float32Array.BYTES_PER_ELEMENT}}else u(_,y.__data,0);e.bufferSubData(e.UNIFORM_BUFFER,T,y.__data)}}function u(y,S,v){typeof y=="number"||typeof y=="boolean"?S[v]=y:y.isMatrix3?(S[v]=y.elements[0],S[v+1]=y.elements[1],S[v+2]=y.elements[2],S[v+3]=0,S[v+4]=y.elements[3],S[v+5]=y.elements[4],S[v+6]=y.elements[5],S[v+7]=0,S[v+8]=y.elements[6],S[v+9]=y.elements[7],S[v+10]=y.elements[8],S[v+11]=0):ArrayBuffer.isView(y)?S.set(y.subarray(0,S.length-v),v):y.toArray(S,v)}function f(y,S,v,w){let T=y.value,_=S+"_"+v;if(Array.isArray(T)){w[_]===void 0&&(w[_]=[]);let M=w[_],L=!1;for(let A=0;A<T.length;A++)d(T[A],M,A)===!0&&(L=!0);return L}return d(T,w,_)}function d(y,S,v){if(S[v]===void 0)return typeof y=="number"||typeof y=="boolean"?S[v]=y:ArrayBuffer.isView(y)?S[v]=y.slice():S[v]=y.clone(),!0;{let w=S[v];if(typeof y=="number"||typeof y=="boolean"){if(w!==y)return S[v]=y,!0}else{if(ArrayBuffer.isView(y))return!0;if(w.equals(y)===!1)return w.copy(y),!0}}return!1}function g(y){let S=y.uniforms,v=0,w=16;for(let _=0,M=S.length;_<M;_++){let L=Array.isArray(S[_])?S[_]:[S[_]];for(let A=0,R=L.length;A<R;A++){let P=L[A],O=Array.isArray(P.value)?P.value:[P.value],N=Array.isArray(S[_])||Array.isArray(P.value),B=v;for(let G=0,tt=O.length;G<tt;G++){let X=O[G],j=x(X,N),Q=v%w,vt=Q%j.boundary,Dt=Q+vt;v+=vt,Dt!==0&&w-Dt<j.storage&&(v+=w-Dt),G===0&&(B=v),v+=j.storage}let V=P.type==="int"?Int32Array:P.type==="uint"?Uint32Array:Float32Array;P.__data=new V((v-B)/Float32Array.BYTES_PER_ELEMENT),P.__offset=B}}let T=v%w;return T>0&&(v+=w-T),y.__size=v,y.__cache={},this}function x(y,S){let v={boundary:0,storage:0};return typeof y=="number"||typeof y=="boolean"?(v.boundary=4,v.storage=4):y.isVector2?(v.boundary=8,v.storage=8):y.isVector3||y.isColor?(v.boundary=16,v.storage=12):y.isVector4?(v.boundary=16,v.storage=16):y.isMatrix3?(v.boundary=16,v.storage=48):y.isMatrix4?(v.boundary=16,v.storage=64):y.isTexture?Ct("WebGLRenderer: Texture samplers can not be part of an uniforms group."):ArrayBuffer.isView(y)?(v.boundary=16,v.storage=y.byteLength):Ct("WebGLRenderer: Unsupported uniform value type.",y),S===!0&&(v.boundary=16,v.storage=Math.ceil(v.storage/16)*16),v}function p(y){let S=y.target;S.removeEventListener("dispose",p),e.deleteBuffer(s[S.id]),delete s[S.id],delete r[S.id]}function m(){for(let y in s)e.deleteBuffer(s[y]);s={},r={}}return{bind:o,update:a,dispose:m}}var OE=new Uint16Array([12469,15057,12620,14925,13266,14620,13807,14376,14323,13990,14545,13625,14713,13328,14840,12882,14931,12528,14996,12233,15039,11829,15066,11525,15080,11295,15085,10976,15082,10705,15073,10495,13880,14564,13898,14542,13977,14430,14158,14124,14393,13732,14556,13410,14702,12996,14814,12596,14891,12291,14937,11834,14957,11489,14958,11194,14943,10803,14921,10506,14893,10278,14858,9960,14484,14039,14487,14025,14499,13941,14524,13740,14574,13468,14654,13106,14743,12678,14818,12344,14867,11893,14889,11509,14893,11180,14881,10751,14852,10428,14812,10128,14765,9754,14712,9466,14764,13480,14764,13475,14766,13440,14766,13347,14769,13070,14786,12713,14816,12387,14844,11957,14860,11549,14868,11215,14855,10751,14825,10403,14782,10044,14729,9651,14666,9352,14599,9029,14967,12835,14966,12831,14963,12804,14954,12723,14936,12564,14917,12347,14900,11958,14886,11569,14878,11247,14859,10765,14828,10401,14784,10011,14727,9600,14660,9289,14586,8893,14508,8533,15111,12234,15110,12234,15104,12216,15092,12156,15067,12010,15028,11776,14981,11500,14942,11205,14902,10752,14861,10393,14812,9991,14752,9570,14682,9252,14603,8808,14519,8445,14431,8145,15209,11449,15208,11451,15202,11451,15190,11438,15163,11384,15117,11274,15055,10979,14994,10648,14932,10343,14871,9936,14803,9532,14729,9218,14645,8742,14556,8381,14461,8020,14365,7603,15273,10603,15272,10607,15267,10619,15256,10631,15231,10614,15182,10535,15118,10389,15042,10167,14963,9787,14883,9447,14800,9115,14710,8665,14615,8318,14514,7911,14411,7507,14279,7198,15314,9675,15313,9683,15309,9712,15298,9759,15277,9797,15229,9773,15166,9668,15084,9487,14995,9274,14898,8910,14800,8539,14697,8234,14590,7790,14479,7409,14367,7067,14178,6621,15337,8619,15337,8631,15333,8677,15325,8769,15305,8871,15264,8940,15202,8909,15119,8775,15022,8565,14916,8328,14804,8009,14688,7614,14569,7287,14448,6888,14321,6483,14088,6171,15350,7402,15350,7419,15347,7480,15340,7613,15322,7804,15287,7973,15229,8057,15148,8012,15046,7846,14933,7611,14810,7357,14682,7069,14552,6656,14421,6316,14251,5948,14007,5528,15356,5942,15356,5977,15353,6119,15348,6294,15332,6551,15302,6824,15249,7044,15171,7122,15070,7050,14949,6861,14818,6611,14679,6349,14538,6067,14398,5651,14189,5311,13935,4958,15359,4123,15359,4153,15356,4296,15353,4646,15338,5160,15311,5508,15263,5829,15188,6042,15088,6094,14966,6001,14826,5796,14678,5543,14527,5287,14377,4985,14133,4586,13869,4257,15360,1563,15360,1642,15358,2076,15354,2636,15341,3350,15317,4019,15273,4429,15203,4732,15105,4911,14981,4932,14836,4818,14679,4621,14517,4386,14359,4156,14083,3795,13808,3437,15360,122,15360,137,15358,285,15355,636,15344,1274,15322,2177,15281,2765,15215,3223,15120,3451,14995,3569,14846,3567,14681,3466,14511,3305,14344,3121,14037,2800,13753,2467,15360,0,15360,1,15359,21,15355,89,15346,253,15325,479,15287,796,15225,1148,15133,1492,15008,1749,14856,1882,14685,1886,14506,1783,14324,1608,13996,1398,13702,1183]),wn=null;function UE(){return wn===null&&(wn=new $l(OE,16,16,fs,cn),wn.name="DFG_LUT",wn.minFilter=xi,wn.magFilter=xi,wn.wrapS=yn,wn.wrapT=yn,wn.generateMipmaps=!1,wn.needsUpdate=!0),wn}var jc=class{constructor(t={}){let{canvas:i=__(),context:n=null,depth:s=!0,stencil:r=!1,alpha:o=!1,antialias:a=!1,premultipliedAlpha:l=!0,preserveDrawingBuffer:c=!1,powerPreference:h="default",failIfMajorPerformanceCaveat:u=!1,reversedDepthBuffer:f=!1,outputBufferType:d=Bi}=t;this.isWebGLRenderer=!0;let g;if(n!==null){if(typeof WebGLRenderingContext<"u"&&n instanceof WebGLRenderingContext)throw new Error("THREE.WebGLRenderer: WebGL 1 is not supported since r163.");g=n.getContextAttributes().alpha}else g=o;let x=d,p=new Set([yc,_c,gc]),m=new Set([Bi,an,Hr,Js,pc,mc]),y=new Uint32Array(4),S=new Int32Array(4),v={textures:[],min:[],max:[],resolution:[]},w=null,T=null,_=[],M=[],L=null;this.domElement=i,this.debug={checkShaderErrors:!0,diagnostics:{keywords:!1},onShaderError:null},this.autoClear=!0,this.autoClearColor=!0,this.autoClearDepth=!0,this.autoClearStencil=!0,this.sortObjects=!0,this.clippingPlanes=[],this.localClippingEnabled=!1,this.toneMapping=Sn,this.toneMappingExposure=1,this.transmissionResolutionScale=1;let A=this,R=!1,P=null,O=null,N=null,B=null;this._outputColorSpace=Oi;let V=0,G=0,tt=null,X=-1,j=null,Q=new be,vt=new be,Dt=null,K=new Xt(0),ht=0,xt=i.width,Rt=i.height,mt=1,Ot=null,De=null,Pt=new be(0,0,xt,Rt),Qt=new be(0,0,xt,Rt),_e=!1,qt=new Gs,si=new ql,Ge=!1,Mi=!1,Ie=new Vt,dn=new C,Je=new be,Hi={background:null,fog:null,environment:null,overrideMaterial:null,isScene:!0},Vi=!1;function Gi(){return tt===null?mt:1}let F=n;function Wi(E,U){return i.getContext(E,U)}let Ae,Re,pt,We,It,Ut,I,b,z,et,J,st,ut,q,Y,ot,D,Z,$,at,nt,rt,Et;try{let E={alpha:!0,depth:s,stencil:r,antialias:a,premultipliedAlpha:l,preserveDrawingBuffer:c,powerPreference:h,failIfMajorPerformanceCaveat:u};if("setAttribute"in i&&i.setAttribute("data-engine",`three.js r${"187"}`),i.addEventListener("webglcontextlost",At,!1),i.addEventListener("webglcontextrestored",kt,!1),i.addEventListener("webglcontextcreationerror",gt,!1),F===null){let U="webgl2";if(F=Wi(U,E),F===null)throw Wi(U)?new Error("THREE.WebGLRenderer: Error creating WebGL context with your selected attributes."):new Error("THREE.WebGLRenderer: Error creating WebGL context.")}Ht()}catch(E){throw i.removeEventListener("webglcontextlost",At,!1),i.removeEventListener("webglcontextrestored",kt,!1),i.removeEventListener("webglcontextcreationerror",gt,!1),Lt("WebGLRenderer: "+E.message),E}function Ht(){Ae=new qb(F),Ae.init(),nt=new CE(F,Ae),Re=new Ub(F,Ae,t,nt),pt=new AE(F,Ae),Re.reversedDepthBuffer&&f&&pt.buffers.depth.setReversed(!0),O=F.createFramebuffer(),N=F.createFramebuffer(),B=F.createFramebuffer(),We=new Zb(F),It=new dE,Ut=new RE(F,Ae,pt,It,Re,nt,We),I=new $b(A),b=new jS(F),rt=new Db(F,b),z=new Yb(F,b,We,rt),et=new jb(F,z,b,rt,We),Z=new Jb(F,Re,Ut),Y=new Fb(It),J=new fE(A,I,Ae,Re,rt,Y),st=new NE(A,It),ut=new mE,q=new SE(Ae),D=new Nb(A,I,pt,et,g,l),ot=new EE(A,et,Re),Et=new DE(F,We,Re,pt),$=new Ob(F,Ae,We),at=new Kb(F,Ae,We),We.programs=J.programs,A.capabilities=Re,A.extensions=Ae,A.properties=It,A.renderLists=ut,A.shadowMap=ot,A.state=pt,A.info=We}x!==Bi&&(L=new tT(x,i.width,i.height,a,s,r));let it=new bd(A,F);this.xr=it,this.getContext=function(){return F},this.getContextAttributes=function(){return F.getContextAttributes()},this.forceContextLoss=function(){let E=Ae.get("WEBGL_lose_context");E&&E.loseContext()},this.forceContextRestore=function(){let E=Ae.get("WEBGL_lose_context");E&&E.restoreContext()},this.getPixelRatio=function(){return mt},this.setPixelRatio=function(E){E!==void 0&&(mt=E,this.setSize(xt,Rt,!1))},this.getSize=function(E){return E.set(xt,Rt)},this.setSize=function(E,U,W=!0){if(it.isPresenting){Ct("WebGLRenderer: Can't change size while VR device is presenting.");return}xt=E,Rt=U,i.width=Math.floor(E*mt),i.height=Math.floor(U*mt),W===!0&&(i.style.width=E+"px",i.style.height=U+"px"),L!==null&&L.setSize(i.width,i.height),this.setViewport(0,0,E,U)},this.getDrawingBufferSize=function(E){return E.set(xt*mt,Rt*mt).floor()},this.setDrawingBufferSize=function(E,U,W){xt=E,Rt=U,mt=W,i.width=Math.floor(E*W),i.height=Math.floor(U*W),this.setViewport(0,0,E,U)},this.setEffects=function(E){if(x===Bi){Lt("WebGLRenderer: setEffects() requires outputBufferType set to HalfFloatType or FloatType.");return}if(E){for(let U=0;U<E.length;U++)if(E[U].isOutputPass===!0){Ct("WebGLRenderer: OutputPass is not needed in setEffects(). Tone mapping and color space conversion are applied automatically.");break}}L.setEffects(E||[])},this.getCurrentViewport=function(E){return E.copy(Q)},this.getViewport=function(E){return E.copy(Pt)},this.setViewport=function(E,U,W,k){E.isVector4?Pt.set(E.x,E.y,E.z,E.w):Pt.set(E,U,W,k),pt.viewport(Q.copy(Pt).multiplyScalar(Gi()).round())},this.getScissor=function(E){return E.copy(Qt)},this.setScissor=function(E,U,W,k){E.isVector4?Qt.set(E.x,E.y,E.z,E.w):Qt.set(E,U,W,k),pt.scissor(vt.copy(Qt).multiplyScalar(Gi()).round())},this.getScissorTest=function(){return _e},this.setScissorTest=function(E){pt.setScissorTest(_e=E)},this.setOpaqueSort=function(E){Ot=E},this.setTransparentSort=function(E){De=E},this.getClearColor=function(E){return E.copy(D.getClearColor())},this.setClearColor=function(){D.setClearColor(...arguments)},this.getClearAlpha=function(){return D.getClearAlpha()},this.setClearAlpha=function(){D.setClearAlpha(...arguments)},this.clear=function(E=!0,U=!0,W=!0){let k=0;if(E){let H=!1;if(tt!==null){let ft=tt.texture.format;H=p.has(ft)}if(H){let ft=tt.texture.type,St=m.has(ft),lt=D.getClearColor(),yt=D.getClearAlpha(),bt=lt.r,Ft=lt.g,Yt=lt.b;St?(y[0]=bt,y[1]=Ft,y[2]=Yt,y[3]=yt,F.clearBufferuiv(F.COLOR,0,y)):(S[0]=bt,S[1]=Ft,S[2]=Yt,S[3]=yt,F.clearBufferiv(F.COLOR,0,S))}else k|=F.COLOR_BUFFER_BIT}U&&(k|=F.DEPTH_BUFFER_BIT,this.state.buffers.depth.setMask(!0)),W&&(k|=F.STENCIL_BUFFER_BIT,this.state.buffers.stencil.setMask(4294967295)),k!==0&&F.clear(k)},this.clearColor=function(){this.clear(!0,!1,!1)},this.clearDepth=function(){this.clear(!1,!0,!1)},this.clearStencil=function(){this.clear(!1,!1,!0)},this.setNodesHandler=function(E){E.setRenderer(this),P=E},this.dispose=function(){i.removeEventListener("webglcontextlost",At,!1),i.removeEventListener("webglcontextrestored",kt,!1),i.removeEventListener("webglcontextcreationerror",gt,!1),D.dispose(),ut.dispose(),q.dispose(),Ut.dispose(),It.dispose(),I.dispose(),et.dispose(),z.dispose(),rt.dispose(),Et.dispose(),J.dispose(),it.dispose(),it.removeEventListener("sessionstart",cp),it.removeEventListener("sessionend",hp),xs.stop()};function At(E){E.preventDefault(),od("WebGLRenderer: Context Lost."),R=!0}function kt(){od("WebGLRenderer: Context Restored."),R=!1;let E=We.autoReset,U=ot.enabled,W=ot.autoUpdate,k=ot.needsUpdate,H=ot.type;Ht(),We.autoReset=E,ot.enabled=U,ot.autoUpdate=W,ot.needsUpdate=k,ot.type=H}function gt(E){Lt("WebGLRenderer: A WebGL context could not be created. Reason: ",E.statusMessage)}function ue(E){let U=E.target;U.removeEventListener("dispose",ue),je(U)}function je(E){Jn(E),It.remove(E)}function Jn(E){let U=It.get(E).programs;U!==void 0&&(U.forEach(function(W){J.releaseProgram(W)}),E.isShaderMaterial&&J.releaseShaderCache(E))}this.renderBufferDirect=function(E,U,W,k,H,ft){U===null&&(U=Hi);let St=H.isMesh&&H.matrixWorld.determinantAffine()<0,lt=gy(E,U,W,k,H);pt.setMaterial(k,St);let yt=W.index,bt=1;if(k.wireframe===!0){if(yt=z.getWireframeAttribute(W),yt===void 0)return;bt=2}let Ft=W.drawRange,Yt=W.attributes.position,wt=Ft.start*bt,Kt=(Ft.start+Ft.count)*bt;ft!==null&&(wt=Math.max(wt,ft.start*bt),Kt=Math.min(Kt,(ft.start+ft.count)*bt)),yt!==null?(wt=Math.max(wt,0),Kt=Math.min(Kt,yt.count)):Yt!=null&&(wt=Math.max(wt,0),Kt=Math.min(Kt,Yt.count));let ze=Kt-wt;if(ze<0||ze===1/0)return;rt.setup(H,k,lt,W,yt);let we,ye=$;if(yt!==null&&(we=b.get(yt),ye=at,ye.setIndex(we)),H.isMesh)k.wireframe===!0?(pt.setLineWidth(k.wireframeLinewidth*Gi()),ye.setMode(F.LINES)):ye.setMode(F.TRIANGLES);else if(H.isLine){let li=k.linewidth;li===void 0&&(li=1),pt.setLineWidth(li*Gi()),H.isLineSegments?ye.setMode(F.LINES):H.isLineLoop?ye.setMode(F.LINE_LOOP):ye.setMode(F.LINE_STRIP)}else H.isPoints?ye.setMode(F.POINTS):H.isSprite&&ye.setMode(F.TRIANGLES);if(H.isBatchedMesh)if(Ae.get("WEBGL_multi_draw"))ye.renderMultiDraw(H._multiDrawStarts,H._multiDrawCounts,H._multiDrawCount);else{let li=H._multiDrawStarts,Mt=H._multiDrawCounts,gi=H._multiDrawCount,ie=yt?b.get(yt).bytesPerElement:1,vs=It.get(k).currentProgram.getUniforms();for(let ci=0;ci<gi;ci++)vs.setValue(F,"_gl_DrawID",ci),ye.render(li[ci]/ie,Mt[ci])}else if(H.isInstancedMesh)ye.renderInstances(wt,ze,H.count);else if(W.isInstancedBufferGeometry){let li=W._maxInstanceCount!==void 0?W._maxInstanceCount:1/0,Mt=Math.min(W.instanceCount,li);ye.renderInstances(wt,ze,Mt)}else ye.render(wt,ze)};function lp(E,U,W,k){P!==null&&E.isNodeMaterial&&P.setObject(k,E),Ge===!0&&Y.setState(E,W,!1),E.transparent===!0&&E.side===Te&&E.forceSinglePass===!1?(E.side=oi,E.needsUpdate=!0,go(E,U,k),E.side=di,E.needsUpdate=!0,go(E,U,k),E.side=Te):go(E,U,k)}this.compile=function(E,U,W=null){W===null&&(W=E),P!==null&&P.renderStart(E,U,W),T=q.get(W),T.init(U),M.push(T),W.traverseVisible(function(H){H.isLight&&H.layers.test(U.layers)&&(T.pushLight(H),H.castShadow&&T.pushShadow(H))}),E!==W&&E.traverseVisible(function(H){H.isLight&&H.layers.test(U.layers)&&(T.pushLight(H),H.castShadow&&T.pushShadow(H))}),T.setupLights(),P!==null&&P.updateLights(T.state.lightsArray),Mi=this.localClippingEnabled,Ge=Y.init(this.clippingPlanes,Mi),Ge===!0&&Y.setGlobalState(this.clippingPlanes,U),P!==null&&ot.render(T.state.shadowsArray,W,U);let k=new Set;return E.traverse(function(H){if(!(H.isMesh||H.isPoints||H.isLine||H.isSprite))return;let ft=H.material;if(ft)if(Array.isArray(ft))for(let St=0;St<ft.length;St++){let lt=ft[St];lp(lt,W,U,H),k.add(lt)}else lp(ft,W,U,H),k.add(ft)}),T=M.pop(),P!==null&&P.renderEnd(),k},this.compileAsync=function(E,U,W=null){let k=this.compile(E,U,W);return new Promise(H=>{function ft(){if(k.forEach(function(St){let yt=It.get(St).currentProgram;(yt===void 0||yt.isReady())&&k.delete(St)}),k.size===0){H(E);return}setTimeout(ft,10)}Ae.get("KHR_parallel_shader_compile")!==null?ft():setTimeout(ft,10)})};let Qh=null;function py(E){Qh&&Qh(E)}function cp(){xs.stop()}function hp(){xs.start()}let xs=new Y_;xs.setAnimationLoop(py),typeof self<"u"&&xs.setContext(self),this.setAnimationLoop=function(E){Qh=E,it.setAnimationLoop(E),E===null?xs.stop():xs.start()},it.addEventListener("sessionstart",cp),it.addEventListener("sessionend",hp),this.render=function(E,U){if(U!==void 0&&U.isCamera!==!0){Lt("WebGLRenderer.render: camera is not an instance of THREE.Camera.");return}if(R===!0)return;P!==null&&P.renderStart(E,U);let W=it.enabled===!0&&it.isPresenting===!0,k=L!==null&&(tt===null||W)&&L.begin(A,tt);if(E.matrixWorldAutoUpdate===!0&&E.updateMatrixWorld(),U.parent===null&&U.matrixWorldAutoUpdate===!0&&U.updateMatrixWorld(),it.enabled===!0&&it.isPresenting===!0&&(L===null||L.isCompositing()===!1)&&(it.cameraAutoUpdate===!0&&it.updateCamera(U),U=it.getCamera()),E.isScene===!0&&E.onBeforeRender(A,E,U,tt),T=q.get(E,M.length),T.init(U),T.state.textureUnits=Ut.getTextureUnits(),M.push(T),Ie.multiplyMatrices(U.projectionMatrix,U.matrixWorldInverse),U.isArrayCamera?si.setFromArrayCamera(U):qt.setFromProjectionMatrix(Ie,qi,U.reversedDepth),Mi=this.localClippingEnabled,Ge=Y.init(this.clippingPlanes,Mi),w=ut.get(E,_.length),w.init(),_.push(w),this.info.render.frame++,it.enabled===!0&&it.isPresenting===!0){let St=A.xr.getDepthSensingMesh();St!==null&&tu(St,U,-1/0,A.sortObjects)}tu(E,U,0,A.sortObjects),w.finish(),P!==null&&P.updateLights(T.state.lightsArray),A.sortObjects===!0&&w.sort(Ot,De),Vi=it.enabled===!1||it.isPresenting===!1||it.hasDepthSensing()===!1,Vi&&D.addToRenderList(w,E),this.info.autoReset===!0&&this.info.reset(),Ge===!0&&Y.beginShadows();let H=T.state.shadowsArray;if(ot.render(H,E,U),Ge===!0&&Y.endShadows(),(k&&L.hasRenderPass())===!1){let St=w.opaque,lt=w.transmissive;if(T.setupLights(),U.isArrayCamera){let yt=U.cameras;if(lt.length>0)for(let bt=0,Ft=yt.length;bt<Ft;bt++){let Yt=yt[bt];fp(St,lt,E,Yt)}Vi&&D.render(E);for(let bt=0,Ft=yt.length;bt<Ft;bt++){let Yt=yt[bt];up(w,E,Yt,Yt.viewport)}}else lt.length>0&&fp(St,lt,E,U),Vi&&D.render(E),up(w,E,U)}tt!==null&&G===0&&(Ut.updateMultisampleRenderTarget(tt),Ut.updateRenderTargetMipmap(tt)),k&&L.end(A),E.isScene===!0&&E.onAfterRender(A,E,U),rt.resetDefaultState(),X=-1,j=null,M.pop(),M.length>0?(T=M[M.length-1],Ut.setTextureUnits(T.state.textureUnits),Ge===!0&&Y.setGlobalState(A.clippingPlanes,T.state.camera)):T=null,_.pop(),_.length>0?w=_[_.length-1]:w=null,P!==null&&P.renderEnd()};function tu(E,U,W,k){if(E.visible===!1)return;if(E.layers.test(U.layers)){if(E.isGroup)W=E.renderOrder;else if(E.isLOD)E.autoUpdate===!0&&E.update(U);else if(E.isLight)T.pushLight(E),E.castShadow&&T.pushShadow(E);else if(E.isSprite){let St=U.isArrayCamera?si:qt;if(!E.frustumCulled||E.intersectsFrustum(St)){k&&Je.setFromMatrixPosition(E.matrixWorld).applyMatrix4(Ie);let lt=et.update(E),yt=E.material;yt.visible&&w.push(E,lt,yt,W,Je.z,null,U)}}else if(E.isMesh||E.isLine||E.isPoints){let St=U.isArrayCamera?si:qt;if(!E.frustumCulled||E.intersectsFrustum(St)){let lt=et.update(E),yt=E.material;if(k&&(E.boundingSphere!==void 0?(E.boundingSphere===null&&E.computeBoundingSphere(),Je.copy(E.boundingSphere.center)):(lt.boundingSphere===null&&lt.computeBoundingSphere(),Je.copy(lt.boundingSphere.center)),Je.applyMatrix4(E.matrixWorld).applyMatrix4(Ie)),Array.isArray(yt)){let bt=lt.groups;for(let Ft=0,Yt=bt.length;Ft<Yt;Ft++){let wt=bt[Ft],Kt=yt[wt.materialIndex];Kt&&Kt.visible&&w.push(E,lt,Kt,W,Je.z,wt,U)}}else yt.visible&&w.push(E,lt,yt,W,Je.z,null,U)}}}let ft=E.children;for(let St=0,lt=ft.length;St<lt;St++)tu(ft[St],U,W,k)}function up(E,U,W,k){let{opaque:H,transmissive:ft,transparent:St}=E;T.setupLightsView(W),Ge===!0&&Y.setGlobalState(A.clippingPlanes,W),k&&pt.viewport(Q.copy(k)),H.length>0&&Oa(H,U,W),ft.length>0&&Oa(ft,U,W),St.length>0&&Oa(St,U,W),pt.buffers.depth.setTest(!0),pt.buffers.depth.setMask(!0),pt.buffers.color.setMask(!0),pt.setPolygonOffset(!1)}function fp(E,U,W,k){if((W.isScene===!0?W.overrideMaterial:null)!==null)return;if(T.state.transmissionRenderTarget[k.id]===void 0){let wt=Ae.has("EXT_color_buffer_half_float")||Ae.has("EXT_color_buffer_float");T.state.transmissionRenderTarget[k.id]=new vi(1,1,{generateMipmaps:!0,type:wt?cn:Bi,minFilter:Wn,samples:Math.max(4,Re.samples),stencilBuffer:r,resolveDepthBuffer:!1,resolveStencilBuffer:!1,storeMultisampledDepthBuffer:!1,storeMultisampledStencilBuffer:!1,colorSpace:Wt.workingColorSpace})}let ft=T.state.transmissionRenderTarget[k.id],St=k.viewport||Q;ft.setSize(St.z*A.transmissionResolutionScale,St.w*A.transmissionResolutionScale);let lt=A.getRenderTarget(),yt=A.getActiveCubeFace(),bt=A.getActiveMipmapLevel();A.setRenderTarget(ft),A.getClearColor(K),ht=A.getClearAlpha(),ht<1&&A.setClearColor(16777215,.5),A.clear(),Vi&&D.render(W);let Ft=A.toneMapping;A.toneMapping=Sn;let Yt=k.viewport;if(k.viewport!==void 0&&(k.viewport=void 0),T.setupLightsView(k),Ge===!0&&Y.setGlobalState(A.clippingPlanes,k),Oa(E,W,k),Ut.updateMultisampleRenderTarget(ft),Ut.updateRenderTargetMipmap(ft),Ae.has("WEBGL_multisampled_render_to_texture")===!1){let wt=!1;for(let Kt=0,ze=U.length;Kt<ze;Kt++){let we=U[Kt],{object:ye,geometry:li,material:Mt,group:gi}=we;if(Mt.side===Te&&ye.layers.test(k.layers)){let ie=Mt.side;Mt.side=oi,Mt.needsUpdate=!0,dp(ye,W,k,li,Mt,gi),Mt.side=ie,Mt.needsUpdate=!0,wt=!0}}wt===!0&&(Ut.updateMultisampleRenderTarget(ft),Ut.updateRenderTargetMipmap(ft))}A.setRenderTarget(lt,yt,bt),A.setClearColor(K,ht),Yt!==void 0&&(k.viewport=Yt),A.toneMapping=Ft}function Oa(E,U,W){let k=U.isScene===!0?U.overrideMaterial:null;for(let H=0,ft=E.length;H<ft;H++){let St=E[H],{object:lt,geometry:yt,group:bt}=St,Ft=St.material;Ft.allowOverride===!0&&k!==null&&(Ft=k),lt.layers.test(W.layers)&&dp(lt,U,W,yt,Ft,bt)}}function dp(E,U,W,k,H,ft){P!==null&&H.isNodeMaterial&&P.setObject(E,H),E.onBeforeRender(A,U,W,k,H,ft),E.modelViewMatrix.multiplyMatrices(W.matrixWorldInverse,E.matrixWorld),E.normalMatrix.getNormalMatrix(E.modelViewMatrix),H.onBeforeRender(A,U,W,k,E,ft),H.transparent===!0&&H.side===Te&&H.forceSinglePass===!1?(H.side=oi,H.needsUpdate=!0,A.renderBufferDirect(W,U,k,H,E,ft),H.side=di,H.needsUpdate=!0,A.renderBufferDirect(W,U,k,H,E,ft),H.side=Te):A.renderBufferDirect(W,U,k,H,E,ft),E.onAfterRender(A,U,W,k,H,ft)}function pp(E){let U=0;for(let W of E)W.texture!==null&&U++;return U}function go(E,U,W){U.isScene!==!0&&(U=Hi);let k=It.get(E),H=T.state.lights,ft=T.state.shadowsArray,St=H.state.version,lt=J.getParameters(E,H.state,ft,U,W,T.state.lightProbeGridArray),yt=J.getProgramCacheKey(lt),bt=k.programs;k.environment=E.isMeshStandardMaterial||E.isMeshLambertMaterial||E.isMeshPhongMaterial?U.environment:null,k.fog=U.fog;let Ft=E.isMeshStandardMaterial||E.isMeshLambertMaterial&&!E.envMap||E.isMeshPhongMaterial&&!E.envMap;k.envMap=I.get(E.envMap||k.environment,Ft),k.envMapRotation=k.environment!==null&&E.envMap===null?U.environmentRotation:E.envMapRotation,bt===void 0&&(E.addEventListener("dispose",ue),bt=new Map,k.programs=bt,k.programVariants=new Map);let Yt=bt.get(yt);if(Yt!==void 0){if(k.currentProgram===Yt&&k.lightsStateVersion===St)return gp(E,lt),Yt}else lt.uniforms=J.getUniforms(E),P!==null&&E.isNodeMaterial&&P.build(E,W,lt),E.onBeforeCompile(lt,A),Yt=J.acquireProgram(lt,yt),bt.set(yt,Yt),k.uniforms=lt.uniforms;let wt=k.uniforms;return(!E.isShaderMaterial&&!E.isRawShaderMaterial||E.clipping===!0)&&(wt.clippingPlanes=Y.uniform),gp(E,lt),k.needsLights=yy(E),k.lightsStateVersion=St,k.needsLights&&(wt.ambientLightColor.value=H.state.ambient,wt.lightProbe.value=H.state.probe,wt.sunLights.value=H.state.sun,wt.sunLightShadows.value=H.state.sunShadow,wt.directionalLights.value=H.state.directional,wt.directionalLightShadows.value=H.state.directionalShadow,wt.spotLights.value=H.state.spot,wt.spotLightShadows.value=H.state.spotShadow,wt.rectAreaLights.value=H.state.rectArea,wt.ltc_1.value=H.state.rectAreaLTC1,wt.ltc_2.value=H.state.rectAreaLTC2,wt.pointLights.value=H.state.point,wt.pointLightShadows.value=H.state.pointShadow,wt.hemisphereLights.value=H.state.hemi,wt.sunShadowMatrix.value=H.state.sunShadowMatrix,wt.sunShadowCascade.value=H.state.sunShadowCascade,wt.directionalShadowMatrix.value=H.state.directionalShadowMatrix,wt.spotLightMatrix.value=H.state.spotLightMatrix,wt.spotLightMap.value=H.state.spotLightMap,wt.pointShadowMatrix.value=H.state.pointShadowMatrix),k.numLightProbeGrids=pp(T.state.lightProbeGridArray),k.currentProgram=Yt,k.uniformsList=null,Yt}function my(E,U,W,k,H){let ft=It.get(E),St=ft.currentProgram.id+","+k+","+H,lt=ft.programVariants.get(St);return lt===void 0?(lt=go(E,U,W),ft.programVariants.set(St,lt)):(ft.currentProgram=lt,ft.uniformsList=null,ft.outputColorSpace=k,ft.toneMapping=H),lt}function mp(E){if(E.uniformsList===null){let U=E.currentProgram.getUniforms();E.uniformsList=Gr.seqWithValue(U.seq,E.uniforms)}return E.uniformsList}function gp(E,U){let W=It.get(E);W.outputColorSpace=U.outputColorSpace,W.batching=U.batching,W.batchingColor=U.batchingColor,W.instancing=U.instancing,W.instancingColor=U.instancingColor,W.instancingMorph=U.instancingMorph,W.skinning=U.skinning,W.morphTargets=U.morphTargets,W.morphNormals=U.morphNormals,W.morphColors=U.morphColors,W.morphTargetsCount=U.morphTargetsCount,W.numClippingPlanes=U.numClippingPlanes,W.numIntersection=U.numClipIntersection,W.vertexAlphas=U.vertexAlphas,W.vertexTangents=U.vertexTangents,W.toneMapping=U.toneMapping}function gy(E,U,W,k,H){U.isScene!==!0&&(U=Hi),Ut.resetTextureUnits();let ft=U.fog,St=k.isMeshStandardMaterial||k.isMeshLambertMaterial||k.isMeshPhongMaterial?U.environment:null,lt=tt===null?A.outputColorSpace:tt.isXRRenderTarget===!0?tt.texture.colorSpace:Wt.workingColorSpace,yt=k.isMeshStandardMaterial||k.isMeshLambertMaterial&&!k.envMap||k.isMeshPhongMaterial&&!k.envMap,bt=I.get(k.envMap||St,yt),Ft=k.vertexColors===!0&&!!W.attributes.color&&W.attributes.color.itemSize===4,Yt=!!W.attributes.tangent&&(!!k.normalMap||k.anisotropy>0),wt=!!W.morphAttributes.position,Kt=!!W.morphAttributes.normal,ze=!!W.morphAttributes.color,we=Sn;k.toneMapped&&(tt===null||tt.isXRRenderTarget===!0)&&(we=A.toneMapping);let ye=W.morphAttributes.position||W.morphAttributes.normal||W.morphAttributes.color,li=ye!==void 0?ye.length:0,Mt=It.get(k),gi=T.state.lights;if(Ge===!0&&(Mi===!0||E!==j)){let Le=E===j&&k.id===X;Y.setState(k,E,Le)}let ie=!1,vs=!1;k.version===Mt.__version?Mt.needsLights&&Mt.lightsStateVersion!==gi.state.version||H.isBatchedMesh&&Mt.batching===!1||!H.isBatchedMesh&&Mt.batching===!0||H.isBatchedMesh&&Mt.batchingColor===!0&&H._colorsTexture===null||H.isBatchedMesh&&Mt.batchingColor===!1&&H._colorsTexture!==null||H.isInstancedMesh&&Mt.instancing===!1||!H.isInstancedMesh&&Mt.instancing===!0||H.isSkinnedMesh&&Mt.skinning===!1||!H.isSkinnedMesh&&Mt.skinning===!0||H.isInstancedMesh&&Mt.instancingColor===!0&&H.instanceColor===null||H.isInstancedMesh&&Mt.instancingColor===!1&&H.instanceColor!==null||H.isInstancedMesh&&Mt.instancingMorph===!0&&H.morphTexture===null||H.isInstancedMesh&&Mt.instancingMorph===!1&&H.morphTexture!==null||Mt.envMap!==bt||k.fog===!0&&Mt.fog!==ft||Mt.numClippingPlanes!==void 0&&(Mt.numClippingPlanes!==Y.numPlanes||Mt.numIntersection!==Y.numIntersection)||Mt.vertexAlphas!==Ft||Mt.vertexTangents!==Yt||Mt.morphTargets!==wt||Mt.morphNormals!==Kt||Mt.morphColors!==ze||Mt.morphTargetsCount!==li||Mt.numLightProbeGrids!==pp(T.state.lightProbeGridArray)?ie=!0:(Mt.outputColorSpace!==lt||Mt.toneMapping!==we)&&(vs=!0):(ie=!0,Mt.__version=k.version);let ci=Mt.currentProgram;(ie===!0||vs===!0)&&(ci=vs===!0?my(k,U,H,lt,we):go(k,U,H),P&&k.isNodeMaterial&&P.onUpdateProgram(k,ci,Mt));let Ua=!1,jn=!1,Ss=!1,te=ci.getUniforms(),ri=Mt.uniforms;if(pt.useProgram(ci.program)&&(Ua=!0,jn=!0,Ss=!0),k.id!==X&&(X=k.id,jn=!0),Ua||j!==E){pt.buffers.depth.getReversed()&&E.reversedDepth!==!0&&(E._reversedDepth=!0,E.updateProjectionMatrix()),te.setValue(F,"projectionMatrix",E.projectionMatrix),te.setValue(F,"viewMatrix",E.matrixWorldInverse);let Qe=te.map.cameraPosition;Qe!==void 0&&Qe.setValue(F,dn.setFromMatrixPosition(E.matrixWorld)),Re.logarithmicDepthBuffer&&te.setValue(F,"logDepthBufFC",2/(Math.log(E.far+1)/Math.LN2)),(k.isMeshPhongMaterial||k.isMeshToonMaterial||k.isMeshLambertMaterial||k.isMeshBasicMaterial||k.isMeshStandardMaterial||k.isShaderMaterial)&&te.setValue(F,"isOrthographic",E.isOrthographicCamera===!0),j!==E&&(j=E,jn=!0,Ss=!0)}if(Mt.needsLights&&(gi.state.sunShadowMap.length>0&&te.setValue(F,"sunShadowMap",gi.state.sunShadowMap,Ut),gi.state.directionalShadowMap.length>0&&te.setValue(F,"directionalShadowMap",gi.state.directionalShadowMap,Ut),gi.state.spotShadowMap.length>0&&te.setValue(F,"spotShadowMap",gi.state.spotShadowMap,Ut),gi.state.pointShadowMap.length>0&&te.setValue(F,"pointShadowMap",gi.state.pointShadowMap,Ut)),H.isSkinnedMesh){te.setOptional(F,H,"bindMatrix"),te.setOptional(F,H,"bindMatrixInverse");let Le=H.skeleton;Le&&(Le.boneTexture===null&&Le.computeBoneTexture(),te.setValue(F,"boneTexture",Le.boneTexture,Ut))}H.isBatchedMesh&&(te.setOptional(F,H,"batchingTexture"),te.setValue(F,"batchingTexture",H._matricesTexture,Ut),te.setOptional(F,H,"batchingIdTexture"),te.setValue(F,"batchingIdTexture",H._indirectTexture,Ut),te.setOptional(F,H,"batchingColorTexture"),H._colorsTexture!==null&&te.setValue(F,"batchingColorTexture",H._colorsTexture,Ut));let ji=W.morphAttributes;if((ji.position!==void 0||ji.normal!==void 0||ji.color!==void 0)&&Z.update(H,W,ci),(jn||Mt.receiveShadow!==H.receiveShadow)&&(Mt.receiveShadow=H.receiveShadow,te.setValue(F,"receiveShadow",H.receiveShadow)),(k.isMeshStandardMaterial||k.isMeshLambertMaterial||k.isMeshPhongMaterial)&&k.envMap===null&&U.environment!==null&&(ri.envMapIntensity.value=U.environmentIntensity),ri.dfgLUT!==void 0&&(ri.dfgLUT.value=UE()),jn){if(te.setValue(F,"toneMappingExposure",A.toneMappingExposure),Mt.needsLights&&_y(ri,Ss),ft&&k.fog===!0&&st.refreshFogUniforms(ri,ft),st.refreshMaterialUniforms(ri,k,mt,Rt,T.state.transmissionRenderTarget[E.id]),Mt.needsLights&&Mt.numLightProbeGrids>0){let Le=v,Qe=0;for(let Rn of T.state.lightProbeGridArray)Rn.texture!==null&&(Le.textures[Qe]=Rn.texture,Le.min[Qe]=Rn.boundingBox.min,Le.max[Qe]=Rn.boundingBox.max,Le.resolution[Qe]=Rn.resolution,Qe++);for(let Rn in Le)Le[Rn].length=Qe;ri.probesSH.value=Le.textures,ri.probesMin.value=Le.min,ri.probesMax.value=Le.max,ri.probesResolution.value=Le.resolution}Gr.upload(F,mp(Mt),ri,Ut)}if(k.isShaderMaterial&&k.uniformsNeedUpdate===!0&&(Gr.upload(F,mp(Mt),ri,Ut),k.uniformsNeedUpdate=!1),k.isSpriteMaterial&&te.setValue(F,"center",H.center),te.setValue(F,"modelViewMatrix",H.modelViewMatrix),te.setValue(F,"normalMatrix",H.normalMatrix),te.setValue(F,"modelMatrix",H.matrixWorld),k.uniformsGroups!==void 0){let Le=k.uniformsGroups;for(let Qe=0,Rn=Le.length;Qe<Rn;Qe++){let yp=Le[Qe];Et.update(yp,ci),Et.bind(yp,ci)}}return ci}function _y(E,U){E.ambientLightColor.needsUpdate=U,E.lightProbe.needsUpdate=U,E.sunLights.needsUpdate=U,E.sunLightShadows.needsUpdate=U,E.directionalLights.needsUpdate=U,E.directionalLightShadows.needsUpdate=U,E.pointLights.needsUpdate=U,E.pointLightShadows.needsUpdate=U,E.spotLights.needsUpdate=U,E.spotLightShadows.needsUpdate=U,E.rectAreaLights.needsUpdate=U,E.hemisphereLights.needsUpdate=U}function yy(E){return E.isMeshLambertMaterial||E.isMeshToonMaterial||E.isMeshPhongMaterial||E.isMeshStandardMaterial||E.isShadowMaterial||E.isShaderMaterial&&E.lights===!0}this.getActiveCubeFace=function(){return V},this.getActiveMipmapLevel=function(){return G},this.getRenderTarget=function(){return tt},this.setRenderTargetTextures=function(E,U,W){let k=It.get(E);k.__autoAllocateDepthBuffer=E.resolveDepthBuffer===!1,k.__autoAllocateDepthBuffer===!1&&(k.__useRenderToTexture=!1),It.get(E.texture).__webglTexture=U,It.get(E.depthTexture).__webglTexture=k.__autoAllocateDepthBuffer?void 0:W,k.__hasExternalTextures=!0},this.setRenderTargetFramebuffer=function(E,U){let W=It.get(E);W.__webglFramebuffer=U,W.__useDefaultFramebuffer=U===void 0},this.setRenderTarget=function(E,U=0,W=0){tt=E,V=U,G=W;let k=null,H=!1,ft=!1;if(E){let lt=It.get(E);if(lt.__useDefaultFramebuffer!==void 0){pt.bindFramebuffer(F.FRAMEBUFFER,lt.__webglFramebuffer),Q.copy(E.viewport),vt.copy(E.scissor),Dt=E.scissorTest,pt.viewport(Q),pt.scissor(vt),pt.setScissorTest(Dt),X=-1;return}else if(lt.__webglFramebuffer===void 0)Ut.setupRenderTarget(E);else if(lt.__hasExternalTextures)Ut.rebindTextures(E,It.get(E.texture).__webglTexture,It.get(E.depthTexture).__webglTexture);else if(E.depthBuffer){let Ft=E.depthTexture;if(lt.__boundDepthTexture!==Ft){if(Ft!==null&&It.has(Ft)&&(E.width!==Ft.image.width||E.height!==Ft.image.height))throw new Error("THREE.WebGLRenderer: Attached DepthTexture is initialized to the incorrect size.");Ut.setupDepthRenderbuffer(E)}}let yt=E.texture;(yt.isData3DTexture||yt.isDataArrayTexture||yt.isCompressedArrayTexture)&&(ft=!0);let bt=It.get(E).__webglFramebuffer;E.isWebGLCubeRenderTarget?(Array.isArray(bt[U])?k=bt[U][W]:k=bt[U],H=!0):E.samples>0&&Ut.useMultisampledRTT(E)===!1?k=It.get(E).__webglMultisampledFramebuffer:Array.isArray(bt)?k=bt[W]:k=bt,Q.copy(E.viewport),vt.copy(E.scissor),Dt=E.scissorTest}else Q.copy(Pt).multiplyScalar(mt).floor(),vt.copy(Qt).multiplyScalar(mt).floor(),Dt=_e;if(W!==0&&(k=O),pt.bindFramebuffer(F.FRAMEBUFFER,k)&&pt.drawBuffers(E,k),pt.viewport(Q),pt.scissor(vt),pt.setScissorTest(Dt),H){let lt=It.get(E.texture);F.framebufferTexture2D(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_CUBE_MAP_POSITIVE_X+U,lt.__webglTexture,W)}else if(ft){let lt=U;for(let yt=0;yt<E.textures.length;yt++){let bt=It.get(E.textures[yt]);F.framebufferTextureLayer(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0+yt,bt.__webglTexture,W,lt)}}else if(E!==null&&W!==0){let lt=It.get(E.texture);F.framebufferTexture2D(F.FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,lt.__webglTexture,W)}X=-1};function _p(E){let U=It.get(E);return(U.__readFormat!==E.format||U.__readType!==E.type)&&(U.__readFormat=E.format,U.__readType=E.type,U.__formatReadable=Re.textureFormatReadable(E.format),U.__typeReadable=Re.textureTypeReadable(E.type)),U}this.readRenderTargetPixels=function(E,U,W,k,H,ft,St,lt=0){if(!(E&&E.isWebGLRenderTarget)){Lt("WebGLRenderer.readRenderTargetPixels: renderTarget is not THREE.WebGLRenderTarget.");return}let yt=It.get(E).__webglFramebuffer;if(E.isWebGLCubeRenderTarget&&St!==void 0&&(yt=yt[St],Array.isArray(yt)&&(yt=yt[0])),yt){pt.bindFramebuffer(F.FRAMEBUFFER,yt);try{let bt=E.textures[lt],Ft=bt.format,Yt=bt.type;E.textures.length>1&&F.readBuffer(F.COLOR_ATTACHMENT0+lt);let wt=_p(bt);if(wt.__formatReadable===!1){Lt("WebGLRenderer.readRenderTargetPixels: renderTarget is not in RGBA or implementation defined format.");return}if(wt.__typeReadable===!1){Lt("WebGLRenderer.readRenderTargetPixels: renderTarget is not in UnsignedByteType or implementation defined type.");return}U>=0&&U<=E.width-k&&W>=0&&W<=E.height-H&&F.readPixels(U,W,k,H,nt.convert(Ft),nt.convert(Yt),ft)}finally{let bt=tt!==null?It.get(tt).__webglFramebuffer:null;pt.bindFramebuffer(F.FRAMEBUFFER,bt)}}},this.readRenderTargetPixelsAsync=async function(E,U,W,k,H,ft,St,lt=0){if(!(E&&E.isWebGLRenderTarget))throw new Error("THREE.WebGLRenderer.readRenderTargetPixels: renderTarget is not THREE.WebGLRenderTarget.");let yt=It.get(E).__webglFramebuffer;if(E.isWebGLCubeRenderTarget&&St!==void 0&&(yt=yt[St],Array.isArray(yt)&&(yt=yt[0])),yt)if(U>=0&&U<=E.width-k&&W>=0&&W<=E.height-H){pt.bindFramebuffer(F.FRAMEBUFFER,yt);let bt=E.textures[lt],Ft=bt.format,Yt=bt.type;E.textures.length>1&&F.readBuffer(F.COLOR_ATTACHMENT0+lt);let wt=_p(bt);if(wt.__formatReadable===!1)throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: renderTarget is not in RGBA or implementation defined format.");if(wt.__typeReadable===!1)throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: renderTarget is not in UnsignedByteType or implementation defined type.");let Kt=F.createBuffer();F.bindBuffer(F.PIXEL_PACK_BUFFER,Kt),F.bufferData(F.PIXEL_PACK_BUFFER,ft.byteLength,F.STREAM_READ),F.readPixels(U,W,k,H,nt.convert(Ft),nt.convert(Yt),0),F.bindBuffer(F.PIXEL_PACK_BUFFER,null);let ze=tt!==null?It.get(tt).__webglFramebuffer:null;pt.bindFramebuffer(F.FRAMEBUFFER,ze);let we=F.fenceSync(F.SYNC_GPU_COMMANDS_COMPLETE,0);return F.flush(),await x_(F,we,4),F.bindBuffer(F.PIXEL_PACK_BUFFER,Kt),F.getBufferSubData(F.PIXEL_PACK_BUFFER,0,ft),F.bindBuffer(F.PIXEL_PACK_BUFFER,null),F.deleteBuffer(Kt),F.deleteSync(we),ft}else throw new Error("THREE.WebGLRenderer.readRenderTargetPixelsAsync: requested read bounds are out of range.")},this.copyFramebufferToTexture=function(E,U=null,W=0){let k=Math.pow(2,-W),H=Math.floor(E.image.width*k),ft=Math.floor(E.image.height*k),St=U!==null?U.x:0,lt=U!==null?U.y:0;Ut.setTexture2D(E,0),F.copyTexSubImage2D(F.TEXTURE_2D,W,0,0,St,lt,H,ft),pt.unbindTexture()},this.copyTextureToTexture=function(E,U,W=null,k=null,H=0,ft=0){let St,lt,yt,bt,Ft,Yt,wt,Kt,ze,we=E.isCompressedTexture?E.mipmaps[ft]:E.image;if(W!==null)St=W.max.x-W.min.x,lt=W.max.y-W.min.y,yt=W.isBox3?W.max.z-W.min.z:1,bt=W.min.x,Ft=W.min.y,Yt=W.isBox3?W.min.z:0;else{let te=Math.pow(2,-H);St=Math.floor(we.width*te),lt=Math.floor(we.height*te),E.isDataArrayTexture?yt=we.depth:E.isData3DTexture?yt=Math.floor(we.depth*te):yt=1,bt=0,Ft=0,Yt=0}k!==null?(wt=k.x,Kt=k.y,ze=k.z):(wt=0,Kt=0,ze=0);let ye=nt.convert(U.format),li=nt.convert(U.type),Mt;U.isData3DTexture?(Ut.setTexture3D(U,0),Mt=F.TEXTURE_3D):U.isDataArrayTexture||U.isCompressedArrayTexture?(Ut.setTexture2DArray(U,0),Mt=F.TEXTURE_2D_ARRAY):(Ut.setTexture2D(U,0),Mt=F.TEXTURE_2D),pt.activeTexture(F.TEXTURE0),pt.pixelStorei(F.UNPACK_FLIP_Y_WEBGL,U.flipY),pt.pixelStorei(F.UNPACK_PREMULTIPLY_ALPHA_WEBGL,U.premultiplyAlpha),pt.pixelStorei(F.UNPACK_ALIGNMENT,U.unpackAlignment);let gi=pt.getParameter(F.UNPACK_ROW_LENGTH),ie=pt.getParameter(F.UNPACK_IMAGE_HEIGHT),vs=pt.getParameter(F.UNPACK_SKIP_PIXELS),ci=pt.getParameter(F.UNPACK_SKIP_ROWS),Ua=pt.getParameter(F.UNPACK_SKIP_IMAGES);pt.pixelStorei(F.UNPACK_ROW_LENGTH,we.width),pt.pixelStorei(F.UNPACK_IMAGE_HEIGHT,we.height),pt.pixelStorei(F.UNPACK_SKIP_PIXELS,bt),pt.pixelStorei(F.UNPACK_SKIP_ROWS,Ft),pt.pixelStorei(F.UNPACK_SKIP_IMAGES,Yt);let jn=E.isDataArrayTexture||E.isData3DTexture,Ss=U.isDataArrayTexture||U.isData3DTexture;if(E.isDepthTexture){let te=It.get(E),ri=It.get(U),ji=It.get(te.__renderTarget),Le=It.get(ri.__renderTarget);pt.bindFramebuffer(F.READ_FRAMEBUFFER,ji.__webglFramebuffer),pt.bindFramebuffer(F.DRAW_FRAMEBUFFER,Le.__webglFramebuffer);for(let Qe=0;Qe<yt;Qe++)jn&&(F.framebufferTextureLayer(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,It.get(E).__webglTexture,H,Yt+Qe),F.framebufferTextureLayer(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,It.get(U).__webglTexture,ft,ze+Qe)),F.blitFramebuffer(bt,Ft,bt+St,Ft+lt,wt,Kt,wt+St,Kt+lt,F.DEPTH_BUFFER_BIT,F.NEAREST);pt.bindFramebuffer(F.READ_FRAMEBUFFER,null),pt.bindFramebuffer(F.DRAW_FRAMEBUFFER,null)}else if(H!==0||E.isRenderTargetTexture||It.has(E)){let te=It.get(E),ri=It.get(U);pt.bindFramebuffer(F.READ_FRAMEBUFFER,N),pt.bindFramebuffer(F.DRAW_FRAMEBUFFER,B);for(let ji=0;ji<yt;ji++)jn?F.framebufferTextureLayer(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,te.__webglTexture,H,Yt+ji):F.framebufferTexture2D(F.READ_FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,te.__webglTexture,H),Ss?F.framebufferTextureLayer(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,ri.__webglTexture,ft,ze+ji):F.framebufferTexture2D(F.DRAW_FRAMEBUFFER,F.COLOR_ATTACHMENT0,F.TEXTURE_2D,ri.__webglTexture,ft),H!==0?F.blitFramebuffer(bt,Ft,bt+St,Ft+lt,wt,Kt,wt+St,Kt+lt,F.COLOR_BUFFER_BIT,F.NEAREST):Ss?F.copyTexSubImage3D(Mt,ft,wt,Kt,ze+ji,bt,Ft,St,lt):F.copyTexSubImage2D(Mt,ft,wt,Kt,bt,Ft,St,lt);pt.bindFramebuffer(F.READ_FRAMEBUFFER,null),pt.bindFramebuffer(F.DRAW_FRAMEBUFFER,null)}else Ss?E.isDataTexture||E.isData3DTexture?F.texSubImage3D(Mt,ft,wt,Kt,ze,St,lt,yt,ye,li,we.data):U.isCompressedArrayTexture?F.compressedTexSubImage3D(Mt,ft,wt,Kt,ze,St,lt,yt,ye,we.data):F.texSubImage3D(Mt,ft,wt,Kt,ze,St,lt,yt,ye,li,we):E.isDataTexture?F.texSubImage2D(F.TEXTURE_2D,ft,wt,Kt,St,lt,ye,li,we.data):E.isCompressedTexture?F.compressedTexSubImage2D(F.TEXTURE_2D,ft,wt,Kt,we.width,we.height,ye,we.data):F.texSubImage2D(F.TEXTURE_2D,ft,wt,Kt,St,lt,ye,li,we);pt.pixelStorei(F.UNPACK_ROW_LENGTH,gi),pt.pixelStorei(F.UNPACK_IMAGE_HEIGHT,ie),pt.pixelStorei(F.UNPACK_SKIP_PIXELS,vs),pt.pixelStorei(F.UNPACK_SKIP_ROWS,ci),pt.pixelStorei(F.UNPACK_SKIP_IMAGES,Ua),ft===0&&U.generateMipmaps===!0&&U.mipmapsAutoUpdate===!0&&F.generateMipmap(Mt),pt.unbindTexture()},this.initRenderTarget=function(E){It.get(E).__webglFramebuffer===void 0&&Ut.setupRenderTarget(E)},this.initTexture=function(E){E.isCubeTexture?Ut.setTextureCube(E,0):E.isData3DTexture?Ut.setTexture3D(E,0):E.isDataArrayTexture||E.isCompressedArrayTexture?Ut.setTexture2DArray(E,0):Ut.setTexture2D(E,0),pt.unbindTexture()},this.resetState=function(){V=0,G=0,tt=null,pt.reset(),rt.reset()},typeof __THREE_DEVTOOLS__<"u"&&__THREE_DEVTOOLS__.dispatchEvent(new CustomEvent("observe",{detail:this}))}get coordinateSystem(){return qi}get outputColorSpace(){return this._outputColorSpace}set outputColorSpace(t){this._outputColorSpace=t;let i=this.getContext();i.drawingBufferColorSpace=Wt._getDrawingBufferColorSpace(t),i.unpackColorSpace=Wt._getUnpackColorSpace()}};var FE=getComputedStyle(document.documentElement),xe=e=>FE.getPropertyValue(`--color-${e}`).trim(),ne=e=>parseInt(xe(e).slice(1),16),bn=e=>[16,8,0].map(t=>(ne(e)>>t&255)/255);function Xr(e){e.traverse(t=>{t.geometry?.dispose();for(let i of[t.material].flat())i?.userData.isKept||i?.dispose()})}function $r(e){return e.userData.isKept=!0,e}var Td=new Map;function Ki(e,t){return Td.has(e)||Td.set(e,$r(t())),Td.get(e)}function ce(e){for(let t of[...e.children])e.remove(t),Xr(t);return e}var ih=e=>new Jt().setFromPoints(e.map(t=>t.isVector3?t:new C(...t))),Ed=(e,t)=>Ki(`line ${e} ${JSON.stringify(t)}`,()=>new Ri({color:e,...t})),qr=(e,t,i={})=>new Ui(ih(e),Ed(t,i)),r0=(e,t,i={})=>new Ws(ih(e),Ed(t,i)),qn=(e,t,i={})=>new Zo(ih(e),Ed(t,i)),ya=(e,t,i)=>new Xs(ih(e),Ki(`dots ${t} ${i}`,()=>new os({color:t,size:i,sizeAttenuation:!1,depthTest:!1}))),Yr=(e,t,i)=>new pe(new ea(e,20,14),Ki(`ball ${t}`,()=>new Yi({color:i,depthTest:!1})));var xa=ne("ink"),Ad=ne("accent"),va=["x","y","z"],BE=9,Rd=144,Sa=(e,t,i,n=1)=>new Ui(new Jt().setFromPoints(e),Ki(`arc ${t} ${n}`,()=>new Ri({color:i,transparent:n<1,opacity:n,depthTest:!1}))),nh=class{constructor(t){this.view=t,this.group=new ee,this.rings=new ee,this.wedge=new ee,this.group.add(this.rings,this.wedge),this.rings.visible=!1,t.add(this),this.frame=new ni}update(t,i,n){this.middle=new C(...t),this.radius=i,this.frame=n??new ni,ce(this.rings),va.forEach((r,o)=>this.rings.add(this.#i(r,o)));let s=new ee;s.add(Sa([this.middle,this.middle.clone().add(new C(0,0,i))],"knob",xa,.5)),this.knob=Yr(1,"knob",xa),this.knob.position.copy(this.middle).add(new C(0,0,i)),this.knob.renderOrder=3,s.add(this.knob),this.rings.add(s),this.light(this.lit)}show(t){this.rings.visible=t,t||ce(this.wedge),this.view.draw()}isInView(){let{clientWidth:t,clientHeight:i}=this.view.canvas;return va.every((n,s)=>[0,90,180,270].every(r=>{let[o,a]=this.view.toScreen(this.#t(s,r).toArray());return o>0&&a>0&&o<t&&a<i}))}#e(t){let i=[0,1,2].map(n=>new C(n===0?1:0,n===1?1:0,n===2?1:0).applyQuaternion(this.frame));return[i[(t+1)%3],i[(t+2)%3],i[t]]}#t(t,i,n=this.radius){let[s,r]=this.#e(t),o=i*Math.PI/180;return this.middle.clone().addScaledVector(s,n*Math.cos(o)).addScaledVector(r,n*Math.sin(o))}#i(t,i){let n=new ee;n.userData.axis=t;let s=[];for(let o=0;o<Rd;o++)s.push(this.#t(i,o*360/Rd),this.#t(i,(o+1)*360/Rd));let r=[];for(let o=0;o<360;o+=5)r.push(this.#t(i,o),this.#t(i,o,this.radius*(o%45===0?.93:o%15===0?.96:.98)));return n.add(Sa(s,t,xa,.75),Sa(r,t,xa,.55)),n}pick(t,i){if(!this.rings.visible||!this.middle)return null;let n=this.view.canvas.getBoundingClientRect(),[s,r]=[t-n.left,i-n.top],[o,a]=this.view.toScreen(this.knob.position.toArray());if(Math.hypot(o-s,a-r)<13)return"knob";let l=null;return va.forEach((c,h)=>{let[u,f]=this.view.toScreen(this.#t(h,0).toArray());for(let d=1;d<=72;d++){let[g,x]=this.view.toScreen(this.#t(h,d*5).toArray()),[p,m]=[g-u,x-f],y=Math.min(Math.max(((s-u)*p+(r-f)*m)/(p*p+m*m||1),0),1),S=Math.hypot(u+y*p-s,f+y*m-r);S<BE&&(!l||S<l.far)&&(l={axis:c,far:S}),[u,f]=[g,x]}}),l?.axis??null}light(t){this.lit=t;for(let i of this.rings.children){let n=i.userData.axis?i.userData.axis===t:t==="knob";for(let s of i.children)s.material.color.setHex(n?Ad:xa)}this.view.draw()}angleAt(t,i,n){let s=va.indexOf(t),[r,o,a]=this.#e(s),l=this.view.ray(i,n);if(Math.abs(l.direction.dot(a))>.18){let f=(l.intersectPlane(new Be().setFromNormalAndCoplanarPoint(a,this.middle),new C)??l.closestPointToPoint(this.middle,new C)).sub(this.middle);return Math.atan2(f.dot(o),f.dot(r))*180/Math.PI}let c=l.closestPointToPoint(this.middle,new C).sub(this.middle),h=new C().crossVectors(a,l.direction).normalize();return-c.dot(h)/this.radius*90}leanAt(t,i){let n=this.view.ray(t,i),s=new vn(this.middle,this.radius),o=(n.intersectSphere(s,new C)??n.closestPointToPoint(this.middle,new C)).sub(this.middle).normalize();return[Math.acos(Math.min(Math.max(o.z,-1),1))*180/Math.PI,Math.atan2(o.y,o.x)*180/Math.PI]}showAngle(t,i,n){ce(this.wedge),this.#n(t);let s=va.indexOf(t),r=Math.max(Math.ceil(Math.abs(n)/3),1),o=[];for(let a=0;a<r;a++)o.push(this.#t(s,i+n*a/r,.9*this.radius),this.#t(s,i+n*(a+1)/r,.9*this.radius));for(let a of[i,i+n])o.push(this.middle,this.#t(s,a));return this.wedge.add(Sa(o,"turned",Ad)),this.#t(s,i+n,1.06*this.radius).toArray()}showLean(t,i){ce(this.wedge),this.#n("knob");let n=o=>{let[a,l]=[o*Math.PI/180,i*Math.PI/180];return this.middle.clone().add(new C(Math.sin(a)*Math.cos(l),Math.sin(a)*Math.sin(l),Math.cos(a)).multiplyScalar(this.radius))},s=Math.max(Math.ceil(t/3),1),r=[this.middle,n(0),this.middle,n(t)];for(let o=0;o<s;o++)r.push(n(t*o/s),n(t*(o+1)/s));return this.wedge.add(Sa(r,"turned",Ad)),n(t).toArray()}clearAngle(){ce(this.wedge),this.#n(null),this.view.draw()}#n(t){for(let i of this.rings.children)i.visible=t===null||(i.userData.axis??"knob")===t}dispose(){ce(this.rings),ce(this.wedge)}scale(t){this.knob&&this.knob.scale.setScalar(6/t)}};var o0=xe("ink"),kE=xe("accent"),zE=[255,253,248],HE=[58,72,106],ds=256,sh=256,Kr=8,Zr=sh/2-9;function Cd(e){let t=Math.min(Math.max(e,0),1);return zE.map((i,n)=>Math.round(i+t*(HE[n]-i)))}var rh=class{constructor(t,i,{onMove:n,onPick:s,onHover:r}){Object.assign(this,{canvas:t,stands:i,onMove:n,onPick:s,onHover:r,cells:null,values:null,marks:[],present:[0,0],cursor:null}),t.addEventListener("pointerdown",o=>{o.button!==0||!this.#t(this.#e(o),Kr)||(t.setPointerCapture(o.pointerId),this.held=!0,this.#i(o))}),t.addEventListener("pointermove",o=>this.held?this.#i(o):this.#n(o)),t.addEventListener("pointerup",o=>{if(!this.held)return;this.held=!1;let a=this.#t(this.#e(o),Kr);this.cursor=null,a&&this.onPick(a)}),t.addEventListener("pointercancel",()=>{this.held=!1,this.cursor=null,this.onMove(null)}),t.addEventListener("pointerleave",()=>!this.held&&this.onHover(null)),t.addEventListener("keydown",o=>this.#s(o)),t.addEventListener("blur",()=>{this.keyed&&this.onMove(null),this.keyed=!1,this.cursor=null})}setCells(t){this.cells=t,this.picture=null}setShades(t){this.values=t,this.picture=null,this.draw()}setMarks(t,i){this.marks=i,this.setPresent(t),this.draw()}setPresent(t){this.present=t,this.stands.style.transform=`translate(${t[0]*Zr}px, ${-t[1]*Zr}px)`}highlight(t){this.lit=t,this.draw()}#e(t){let i=this.canvas.getBoundingClientRect();return[(t.clientX-i.left-sh/2)/Zr,(i.top+sh/2-t.clientY)/Zr]}#t([t,i],n){if(!this.cells)return null;let s=({at:h})=>Zr*Math.hypot(h[0]-t,h[1]-i),r=this.marks.filter(h=>s(h)<n).sort((h,u)=>s(h)-s(u))[0],o=Math.hypot(t,i)/.995;if(o>1){if(!r)return null;[t,i]=[t/o,i/o]}let a=Math.min(Math.floor((t+1)/2*ds),ds-1),l=Math.min(Math.floor((1-i)/2*ds),ds-1),c=this.cells[l*ds+a];return c===65535?null:{index:c,letter:r?.letter??null,x:t,y:i}}#i(t){let i=this.#t(this.#e(t),Kr);i&&(this.cursor=[i.x,i.y],this.onMove(i))}#n(t){this.onHover(this.#t(this.#e(t),Kr)?.index??null)}#s(t){let i={ArrowLeft:[-1,0],ArrowRight:[1,0],ArrowUp:[0,1],ArrowDown:[0,-1]}[t.key];if(i){t.preventDefault(),t.stopPropagation();let n=t.shiftKey?.1:.03,[s,r]=this.cursor??this.present,o=this.#t([s+n*i[0],r+n*i[1]],0);if(!o)return;this.cursor=[o.x,o.y],this.keyed=!0,this.onMove(o)}else if(t.key==="Enter"&&this.cursor){let n=this.#t(this.cursor,0);this.cursor=null,this.keyed=!1,n&&this.onPick(n)}}#r(){let t=document.createElement("canvas");t.width=t.height=ds;let i=t.getContext("2d"),n=i.createImageData(ds,ds),s=Array.from(this.values,Cd);for(let r=0;r<this.cells.length;r++){let o=this.cells[r];if(o===65535)continue;let[a,l,c]=s[o];n.data.set([a,l,c,255],4*r)}i.putImageData(n,0,0),this.picture=t}draw(){if(!this.cells||!this.values)return;this.picture||this.#r();let{canvas:t}=this,i=t.getContext("2d"),n=t.width,s=n/2,r=n/sh,o=Zr*r,a=([l,c])=>[s+l*o,s-c*o];i.clearRect(0,0,n,n),i.drawImage(this.picture,s-o,s-o,2*o,2*o),i.strokeStyle=o0,i.lineWidth=r;for(let[l,c]of[[45,.25],[90,.6],[135,.25],[180,1]])i.globalAlpha=c,i.beginPath(),i.arc(s,s,Math.sin(l*Math.PI/360)*o,0,2*Math.PI),i.stroke();i.globalAlpha=1;for(let{letter:l,at:c}of this.marks){let[h,u]=a(c),f=l===this.lit;i.fillStyle=f?kE:o0,i.beginPath(),i.arc(h,u,(f?Kr+2:Kr)*r,0,2*Math.PI),i.fill(),i.strokeStyle=xe("sheet"),i.stroke(),i.fillStyle="#fff",i.font=`${11*r}px "Source Sans 3", sans-serif`,i.textAlign="center",i.textBaseline="middle",i.fillText(l,h,u+.5*r)}}};var VE=700,Ee,Yn,oh,ah=null,Pd=e=>(t,i)=>t.nudge(e,i.shiftKey?-1:1);Ti("turn",{hint(e){return e.picking?"Click the face that shall lie on the plate":e.levelling?e.places.length?"Click the second point":"Click the first of two points":""},inHand:e=>e.picking||e.levelling,enter:e=>e.startTurning(),leave:e=>e.leaveTurning(),shown(e){e.changedAt=performance.now(),e.turnsStopped||e.loadTurns(e.looksByItself())},grab:(e,t,i)=>e.picking||e.levelling?null:e.grabArc(t,i),click(e,t,i){let n=ct.view.pick(t,i);return e.picking?e.setFaceDown(n):e.levelling?e.levelAt(n):e.choosePatchAt(n)},hover:(e,t)=>e.hoverArc(t),escape(e){e.stopPreview(),ct.view.markPlaces([]),e.picking=e.levelling=!1,e.places=[]},keys:{x:Pd("x"),y:Pd("y"),z:Pd("z")},data:{picking:!1,ownAxes:!1,levelling:!1,lean:{by:30,toward:0},live:null,turns:null,turnsWork:null,turnsOf:null,turnsStopped:"",goal:"all",hovered:null,weights:{},keepProportions:!0,get shownAngles(){return this.live?.angles_deg??this.state.angles_deg},get liveText(){if(!this.live)return"";let e=this.live.goals;return`overhang ${ae(e.area)} mm\xB2 \xB7 ${this.live.islands} island${this.live.islands===1?"":"s"} \xB7 height ${this.live.top_mm.toFixed(1)} mm \xB7 first layer ${e.start.toFixed(1)} mm across`},get goalShown(){return this.turns?.goals.find(e=>e.key===this.goal)??null},get weightRows(){return this.turns?this.turns.goals.slice(1).filter(e=>e.key!=="marks"||this.turns.has_show_side).map(e=>[e.key,e.label]):[]},goalNumber(e,t){if(t==null)return"\u2013";let i=e.key==="copies"?0:e.key==="growth"||e.key==="all"?2:e.key==="islands"||Math.abs(t)<10?1:0;return`${Do(t,i,i)}${e.unit==="\xB0"?"\xB0":e.unit?` ${e.unit}`:""}`},get goalEnds(){return this.goalShown?.ends??["",""]},get goalText(){let e=this.goalShown;if(!e)return"";let t=this.hovered===null?"":`${this.goalNumber(e,e.values[this.hovered])} there, `,i=e.estimate===null?"":` Estimate; off by up to ${(100*e.estimate).toFixed(0)} % where it was measured on this piece.`,n=e.present===null?"":`${this.goalNumber(e,e.present)} as it stands`;return`${e.measure}${t||n?": ":""}${n?t:t.replace(", ","")}${n}.${i}`},get standsBest(){return this.turns?.proposals[0]?.text==="stay as it is"},get outsideText(){return`Leaves the build volume by ${this.state.outside.join(", ")}.`},weightField:e=>`weight-${e}`,usualWeights(){return this.weights={},this.loadTurns(!0)},turn(e,t){let i=[...this.state.angles_deg];return i[e]=t.valueAsNumber,this.edit("turn",{x_deg:i[0],y_deg:i[1],z_deg:i[2]},t)},shade:e=>`rgb(${Cd(e).join(" ")})`,sentence:e=>e.charAt(0).toUpperCase()+e.slice(1),proposalNote(e){let t=[e.angles_deg.map(i=>`${Number(i.toFixed(1))}\xB0`).join(", ")];if(e.on_face&&t.push("on a face"),e.broad_deg!==null&&e.broad_deg>1&&e.broad_deg<89.5){let i=e.usual_lean&&e.broad_deg>=30&&e.broad_deg<=45;t.push(`broad face at ${e.broad_deg.toFixed(0)}\xB0${i?", within the usual 30\xB0 to 45\xB0":""}`)}return t.push(`${e.minutes.toFixed(0)} min`),t.join(" \xB7 ")},startTurning(){let{view:e}=ct;Ee=Ee??new nh(e),e.beforeDraw=t=>Ee.scale(t),this.placeArcs(),Ee.isInView()||this.look("home"),Ee.show(!0),this.$refs.canvas.arcs=Ee,ju(dt.urls.live,{kind:"turn_by",parameters:{axis:"x",by_deg:0}}).catch(()=>{}),this.turnsStopped||this.loadTurns(this.looksByItself())},looksByItself(){return this.state.facets<=dt.asked_from_facets},leaveTurning(){this.picking=this.levelling=!1,this.places=[],this.stopPreview(),Ee?.show(!1)},placeArcs(){if(!Ee)return;let e=this.ownAxes?new ni().setFromEuler(new xn(...this.state.angles_deg.map(s=>s*Math.PI/180),"ZYX")):null,[t,i]=this.state.move_mm,n=[t,i,(this.state.top_mm+this.state.lift_mm)/2];Ee.update(n,.54*Math.max(...this.state.size_mm),e)},toggleOwnAxes(){this.ownAxes=!this.ownAxes,this.placeArcs()},hoverArc(e){if(!Ee||this.live)return;let t=Ee.pick(e.clientX,e.clientY);t!==Ee.lit&&(Ee.light(t),this.$refs.canvas.style.cursor=t?"grab":"")},grabArc(e,t){let i=Ee?.pick(e,t);if(!i)return null;let n=i==="knob"?this.grabKnob():this.grabRing(i,e,t);return ah=n,{follow:s=>ah===n&&n.follow(s),drop:()=>this.dropTurn(ah===n?n.edit():null)}},grabRing(e,t,i){let n=Ee.angleAt(e,t,i),[s,r,o]=[n,0,0];return{follow:a=>{let l=Ee.angleAt(e,a.clientX,a.clientY);r+=(l-s+540)%360-180,s=l,o=a.altKey?Number(r.toFixed(1)):5*Math.round(r/5),this.turnLabel(Ee.showAngle(e,n,o),`${e.toUpperCase()} ${o>0?"+":""}${o}\xB0`),this.preview("turn_by",{axis:e,by_deg:o,own:this.ownAxes})},edit:()=>o?["turn_by",{axis:e,by_deg:o,own:this.ownAxes}]:null}},grabKnob(){let e=0,t=0;return{follow:i=>{[e,t]=Ee.leanAt(i.clientX,i.clientY);let n=i.altKey?.1:5;e=Number((n*Math.round(e/n)).toFixed(1)),t=Number((n*Math.round(t/n)).toFixed(1)),this.lean={by:e,toward:t},this.turnLabel(Ee.showLean(e,t),`${e}\xB0 towards ${(t+360)%360}\xB0`),this.preview("lean",{by_deg:e,toward_deg:t})},edit:()=>e?["lean",{by_deg:e,toward_deg:t}]:null}},turnLabel(e,t){let i=this.$refs.pins.querySelector("[data-turn-label]");i||(i=document.createElement("span"),i.className="measured follows",i.dataset.turnLabel="1",this.$refs.pins.append(i)),Object.assign(i,{textContent:t,place:e})},releaseArc(){ah=null,Ee?.clearAngle(),this.$refs.pins.querySelector("[data-turn-label]")?.remove()},async dropTurn(e){this.releaseArc(),(!e||!await this.edit(...e))&&this.stopPreview()},nudge(e,t){return this.edit("turn_by",{axis:e,by_deg:t,own:this.ownAxes})},async preview(e,t){if(this.wanted={kind:e,parameters:t},!this.previewingTurn){this.previewingTurn=!0;try{for(;this.wanted;){let i=this.wanted;this.wanted=null;let n=performance.now(),s=await ju(dt.urls.live,i),r=new Uint32Array(s,0,1)[0],o=JSON.parse(new TextDecoder().decode(new Uint8Array(s,4,r)));if(!this.previewingTurn)return;this.live=o,ct.view.setTurned(o,new Float32Array(s,4+r)),Yn?.setPresent(o.at),await ct.view.nextDrawing(),this.$refs.canvas.dataset.liveMs=String(Math.round(performance.now()-n))}}catch(i){this.problem=i.message}finally{this.previewingTurn=!1}}},stopPreview(){this.releaseArc(),this.wanted=null,this.previewingTurn=!1,this.live&&(this.live=null,this.shownSlopes=null,Yn?.setPresent(this.turns?.at??[0,0]),this.show(this.state).catch(e=>this.problem=e.message))},endPreview(){if(this.wanted=null,this.previewingTurn=!1,this.live&&(this.shownSlopes=null),this.live=null,ct.view.clearTurned(),this.activity!=="turn"||!Ee)return;let e=Ee.isInView();this.placeArcs(),e&&!Ee.isInView()&&ct.view.frame(Ee.middle.toArray(),2.1*Ee.radius)},async setFaceDown(e){e&&(this.picking=!1,await this.edit("face_down",{at:{facet:e.facet,weights:e.weights}}))},startPicking(e){this.picking=e==="face"&&!this.picking,this.levelling=e==="level"&&!this.levelling,this.places=[]},async levelAt(e){if(!e||(this.places.push({facet:e.facet,weights:e.weights}),ct.view.markPlaces([...this.levelPoints??[],e.point]),this.levelPoints=[e.point],this.places.length<2))return;let t=de.raw(this.places);this.places=[],this.levelPoints=null,this.levelling=!1,ct.view.markPlaces([]),await this.edit("level",{anchors:t})},changedAt:0,mapOf(){let{process:e,threshold_deg:t,scale:i,mirrored:n,lift_mm:s,unit:r,sides_url:o}=this.state;return JSON.stringify([e,t,i,n,s,r,o,this.weights])},async loadTurns(e){if(this.turnsOf===this.mapOf()){this.turnsAgain=!0;return}this.turnsWork&&Li(this.turnsWork).catch(()=>{});let t=this.turnsOf=this.mapOf(),i=()=>this.turnsOf!==t;this.turnsStopped="";try{do{this.turnsAgain=!1;let n=Object.keys(this.weights).length?{weights:{...this.weights}}:{},s=await zt(dt.urls.turns,{...n,only_if_known:!0});if(e&&!i()&&!(s.goals&&!s.so_far)){let r=this.changedAt+VE-performance.now();r>0&&await new Promise(o=>setTimeout(o,r)),i()||(s=await zt(dt.urls.turns,{...n,only_if_known:!1}))}if(i())return;if(s.work){this.turnsWork=s.work;let r="",o=await hi(s.work,a=>{this.turnsWork?.id===a.id&&(this.turnsWork=a,a.open&&a.stage!==r&&r!==(r=a.stage)&&this.showSoFar(n,i))});if(i())return;if(this.turnsWork=null,o.state!=="done"){this.turnsStopped=o.state==="cancelled"?"Looking at every way was cancelled.":o.error;return}if(s=await zt(dt.urls.turns,{...n,only_if_known:!0}),i())return}s.goals&&!s.so_far?await this.showTurns(s):this.turns?.so_far||(this.turns=null)}while(this.turnsAgain&&!i())}catch(n){!i()&&n.status!==409&&(this.turnsStopped=n.message)}finally{i()||(this.turnsWork=null,this.turnsOf=null)}},async showSoFar(e,t){try{let i=await zt(dt.urls.turns,{...e,only_if_known:!0});!t()&&this.turnsWork&&i.so_far&&await this.showTurns(i)}catch{}},async numbersOf(e){if(oh?.url!==e.numbers_url){let t=new Float32Array(await He(e.numbers_url)),i=e.directions,n={};e.goals.slice(1).forEach(({key:s},r)=>n[s]=t.subarray((3+r)*i,(4+r)*i)),oh={url:e.numbers_url,downs:t.subarray(0,3*i),byKey:n}}return oh},async showTurns(e){let{byKey:t}=await this.numbersOf(e);for(let i of e.goals){i.values=t[i.key]??Float32Array.from(i.values,a=>a??NaN);let n=i.values.filter(Number.isFinite).sort(),s=a=>n[Math.min(Math.floor(a*n.length),n.length-1)]??0;i.range=i.most?[s(.99),s(.05)]:[s(.01),s(.95)];let r=[i.range[0]!==s(i.most?1:0),i.range[1]!==s(i.most?0:1)],o=i.most?["\u2265","\u2264"]:["\u2264","\u2265"];i.ends=i.range.map((a,l)=>`${r[l]?`${o[l]} `:""}${this.goalNumber(i,a)}`)}Yn=Yn??new rh(this.$refs.disc,this.$refs.stands,{onMove:i=>i===null?this.stopPreview():(this.hovered=i.index,this.preview(...this.turnOf(i))),onPick:i=>this.standOn(...this.turnOf(i)),onHover:i=>this.hovered=i}),this.discOf!==e.directions&&(Yn.setCells(new Uint16Array(await He(e.disc_url))),this.discOf=e.directions),this.turns=e,Yn.setMarks(e.at,this.marksOf(e)),this.showGoal(this.goal),this.$refs.disc.map=Yn},marksOf:e=>e.proposals.map(({letter:t,at:i})=>({letter:t,at:i})).reverse(),turnOf({index:e,letter:t}){let{proposals:i}=de.raw(this.turns),n=i.find(s=>s.letter===t);return n?this.turnOfProposal(n):["stand_on",{down:[...oh.downs.subarray(3*e,3*e+3)]}]},standAs(e){return this.standOn(...this.turnOfProposal(e))},turnOfProposal({angles_deg:[e,t,i]}){return["turn",{x_deg:e,y_deg:t,z_deg:i}]},showGoal(e){let t=this.turns.goals.find(s=>s.key===e)??this.turns.goals[0];this.goal=t.key;let[i,n]=t.range;Yn.setShades(de.raw(t).values.map(s=>Number.isFinite(s)?(s-i)/(n-i||1):1))},mapMark(e){Yn?.highlight(e)},weightOf(e){return this.weights[e]??this.turns?.weights[e]??0},setWeight(e,t){t>=0&&t<=10?this.weights={...this.turns.weights,...this.weights,[e]:t}:this.problem="A weight is a number from 0 to 10."},async standOn(...e){await this.edit(...e)||this.stopPreview()},async cancelTurns(){try{this.turnsWork&&await Li(this.turnsWork)}catch(e){this.problem=e.message}},scale(e,t){let i=t.valueAsNumber,n=i/this.state.scale[e],s=this.state.scale.map((r,o)=>o===e?i:this.keepProportions?r*n:r);return this.edit("scale",{x:s[0],y:s[1],z:s[2]},t)},moveTo(e,t){let i=[...this.state.move_mm];return i[e]=t.valueAsNumber,this.edit("move",{x_mm:i[0],y_mm:i[1]},t)}}});var GE=14,a0=e=>Array.from({length:e.length/3},(t,i)=>e.slice(3*i,3*i+3)),lh=class{constructor(t){this.view=t,this.group=new ee,t.add(this)}update(t,i=[],n=0){if(ce(this.group),this.plane=t,!t)return;let s=ne("accent"),r=new C(...t.normal),o=new C(...t.point),a=qn([[-1,-1],[1,-1],[1,1],[-1,1]].map(([l,c])=>[l*t.reach,c*t.reach,0]),s);a.quaternion.setFromUnitVectors(new C(0,0,1),r),a.position.copy(o),this.group.add(a);for(let l of i){this.group.add(qn(a0(l),s,{depthTest:!1}));let c=qn(a0(l),s,{transparent:!0,opacity:.6});c.position.copy(r).multiplyScalar(n),this.group.add(c)}this.tip=o.clone().addScaledVector(r,t.reach*.6),this.group.add(qr([o,this.tip],s,{depthTest:!1}));for(let[l,c]of[[o,.045],[this.tip,.03]]){let h=Yr(t.reach*c,"cut",s);h.position.copy(l),h.renderOrder=4,this.group.add(h)}}pick(t,i){if(!this.plane)return null;let n=this.view.canvas.getBoundingClientRect(),s=r=>Math.hypot(...this.view.toScreen(r).map((o,a)=>o-(a?i-n.top:t-n.left)))<GE;return s(this.plane.point)?"move":s(this.tip.toArray())?"tilt":null}along(t,i){let{point:n,normal:s}=this.plane,[r,o]=this.view.toScreen(n),[a,l]=this.view.toScreen(n.map((h,u)=>h+s[u])),c=(a-r)**2+(l-o)**2;return c<.01?0:(t*(a-r)+i*(l-o))/c}dispose(){ce(this.group)}};var WE=`
  uniform vec3 shift;
  varying vec3 vNormal;
  void main() {
    vNormal = normal;
    gl_Position = projectionMatrix * viewMatrix * vec4(position + shift, 1.0);
  }`,XE=`
  uniform vec3 eye;
  uniform vec3 tint;
  varying vec3 vNormal;
  void main() {
    vec3 n = gl_FrontFacing ? vNormal : -vNormal;
    float key = 0.5 + 0.5 * dot(n, vec3(-0.398, -0.597, 0.696));
    gl_FragColor = vec4(tint * (gl_FrontFacing ? 0.62 + 0.20 * key + 0.22 * max(dot(n, eye), 0.0) : 0.6), 1.0);
    #include <colorspace_fragment>
  }`,Jr=class{group=new ee;constructor(t){this.view=t,t.add(this)}update(t,i){ce(this.group),this.view.model.group.visible=!i,this.view.supports.group.visible=!i;for(let[n,{corners:s,colour:r}]of t.entries()){let o=new Jt;o.setAttribute("position",new Zt(s,3)),o.computeVertexNormals();let a=Ki(`body ${Math.min(n,1)} ${r}`,()=>new qe({vertexShader:WE,fragmentShader:XE,side:Te,uniforms:{eye:this.view.uniforms.eye,tint:{value:new C(...bn(r))},shift:{value:new C}}}));a.uniforms.shift.value.set(0,0,0);let l=new pe(o,a);l.frustumCulled=!1;let c=new Ui(new ta(o,30),Ki("edges",()=>new Ri({color:new Xt(...bn("ink")),transparent:!0,opacity:.7})));c.frustumCulled=!1,this.group.add(l,c)}this.view.draw()}shift(t){let[i,n]=this.group.children;i&&(i.material.uniforms.shift.value.set(...t),n.position.set(...t),this.view.draw())}dispose(){ce(this.group)}};var $E="http://www.w3.org/2000/svg",qE={triangle:3,square:4,hexagon:6},Tn=(e,t,i)=>{let n=document.createElementNS($E,e);for(let[s,r]of Object.entries(t))n.setAttribute(s,r);return i?.append(n),n},ch=e=>e.map(t=>`M${t.map(([i,n])=>`${i} ${-n}`).join("L")}Z`).join("");function YE(e){let[t,i]=e.uv,n=e.turn_deg*Math.PI/180;if(e.kind==="snap"){let[o,a]=[e.width_mm/2,e.thick_mm/2];return[[-a,-o],[a+e.catch_mm,-o],[a+e.catch_mm,o],[-a,o]].map(([l,c])=>[t+l*Math.cos(n)-c*Math.sin(n),i+l*Math.sin(n)+c*Math.cos(n)])}let s=qE[e.outline]??48,r=e.width_mm/2/(s>12?1:Math.cos(Math.PI/s));return Array.from({length:s},(o,a)=>{let l=2*Math.PI*(a+.5)/s+n;return[t+r*Math.cos(l),i+r*Math.sin(l)]})}var Id=new WeakMap;function Ld(e,t,i,n,s){if(e.querySelector("svg[data-held]")){Id.set(e,[t,i,n,s]);return}let[r,o,a,l]=t.bounds,c=Math.max(a-r,l-o,.001),h=.08*c,u=Tn("svg",{viewBox:`${r-h} ${-l-h} ${a-r+2*h} ${l-o+2.6*h}`,class:"w-full h-full",role:"img","aria-label":`Cut face ${t.key}, ${t.area_mm2.toFixed(0)} mm\xB2`,preserveAspectRatio:"xMidYMid meet"}),f={"vector-effect":"non-scaling-stroke"};if(Tn("path",{d:ch(t.outline),class:"cut-face","fill-rule":"evenodd",...f,"data-outline":""},u),i.some(S=>S.length)&&Tn("path",{d:ch(i),class:"cut-zone","fill-rule":"evenodd",...f,"data-zone":""},u),t.dovetail){let{uv:[S,v],width_mm:w,turn_deg:T}=t.dovetail,_=T*Math.PI/180,[M,L]=[-Math.sin(_)*2*c,Math.cos(_)*2*c],[A,R]=[Math.cos(_)*w/2,Math.sin(_)*w/2],[P,O]=[A+M,R+L];Tn("path",{d:ch([[[S-P,v-O],[S+A-M,v+R-L],[S+P,v+O],[S-A+M,v-R+L]]]),class:"cut-tail-body","data-tail":""},u);for(let N of[-1,1])Tn("path",{d:`M${S+N*A-M} ${-(v+N*R-L)}L${S+N*A+M} ${-(v+N*R+L)}`,class:"cut-tail",...f},u)}let d=new Map;for(let S of t.joints){let v=Tn("g",{class:`cut-joint${S.ok?"":" is-out"}${S.key===n?" is-chosen":""}`,"data-joint":S.key,tabindex:"0",role:"button","aria-label":`Joint ${S.key}`},u);Tn("path",{d:ch([YE(S)]),...f},v);let w=Tn("text",{x:S.uv[0],y:-S.uv[1],"font-size":.045*c,"text-anchor":"middle","dominant-baseline":"central"},v);w.textContent=S.key,v.addEventListener("keydown",T=>(T.key==="Enter"||T.key===" ")&&(T.preventDefault(),s.choose(S.key))),d.set(S.key,v)}let g=10**Math.floor(Math.log10(c/2));Tn("path",{d:`M${r} ${-o+.9*h}H${r+g}`,class:"cut-scale",...f},u);let x=Tn("text",{x:r+g+.02*c,y:-o+.9*h,"font-size":.04*c,"dominant-baseline":"central"},u);x.textContent=`${g} mm`;let p=S=>{let v=new DOMPoint(S.clientX,S.clientY).matrixTransform(u.getScreenCTM().inverse());return[Number(v.x.toFixed(3)),Number((-v.y).toFixed(3))]},m=null;u.addEventListener("pointerdown",S=>{let v=S.target.closest?.("[data-joint]")?.dataset.joint,w=v?null:S.target.closest?.("[data-tail]");m={key:v,tail:w,from:p(S),x:S.clientX,y:S.clientY},(v||w)&&u.setPointerCapture(S.pointerId),u.toggleAttribute("data-held",!0)});let y=()=>{m=null,u.removeAttribute("data-held");let S=Id.get(e);Id.delete(e),S&&Ld(e,...S)};for(let S of["pointercancel","pointerleave"])u.addEventListener(S,()=>m&&y());u.addEventListener("pointermove",S=>{if(!m?.key&&!m?.tail)return;let[v,w]=p(S);(m.tail??d.get(m.key)).setAttribute("transform",`translate(${v-m.from[0]} ${-(w-m.from[1])})`)}),u.addEventListener("pointerup",S=>{if(!m)return;let{key:v,tail:w,from:T,x:_,y:M}=m;y();let L=Math.hypot(S.clientX-_,S.clientY-M)>4;if(w&&L)return s.slide(p(S).map((R,P)=>R-T[P]+t.dovetail.uv[P]));if(!v)return L?null:s.place(p(S));if(!L)return s.choose(v);let A=t.joints.find(R=>R.key===v);return s.move(v,p(S).map((R,P)=>R-T[P]+A.uv[P]))}),e.replaceChildren(u)}var Zi=()=>dt.urls.split,KE=e=>e.map(t=>t/Math.hypot(...e)),l0=(e,t)=>e.reduce((i,n,s)=>i+n*t[s],0),jr=Math.PI/180,c0=.5,Qr,wa,h0=e=>(t,i)=>t.cutTool&&t.setCutField("offset",t.cutAt.offset+e*(i.shiftKey?10:1));Ti("split",{hint(e){return e.cutTool==="flat"?"Click a face: the cut lies along it":e.cutTool==="crease"?"Click beside an edge: the cut lies along its loop of creases":e.pair?"Drag the slider to pull the sides apart":e.cutTool==="three"?`Click three points of the cut (${e.cutPoints.length} of 3)`:e.cutTool?"Drag the ball to move the cut, the tip to tilt it; the tip points to part a":""},inHand:e=>!!e.cutTool,enter(e){Qr??=new lh(ct.view),wa??=new Jr(ct.view),e.showCutPlane(),e.joinWork("find_cuts",t=>{e.cutsWork||(e.cutsFit=t,e.loadCuts(!1))})},leave(e){e.endCut(),e.closeFace(),e.endTogether()},shown(e){e.pair?e.showPair(e.pair.cut):e.othersShown&&e.showOthers(!0),e.loadCuts(!0),e.cutTool&&e.tryCut(),e.cutFace&&e.openFace(e.cutFace.key)},grab(e,t,i,n){let s=e.cutTool?Qr?.pick(t,i):null;if(!s)return null;let r={x:n.clientX,y:n.clientY,...e.cutAt};return{follow:o=>e.dragCut(s,r,o.clientX-r.x,o.clientY-r.y),drop:()=>e.tryCut()}},click(e,t,i){let n=ct.view.pick(t,i);return e.cutTool==="flat"?e.cutAlong(n):e.cutTool==="three"?e.cutThrough(n):e.cutTool==="crease"?e.cutAlongCrease(n):null},escape(e){return e.pair||e.othersShown?e.endTogether():(e.endCut(),e.closeFace())},keys:{PageUp:h0(c0),PageDown:h0(-c0)},data:{cutTool:"",cutMoved:"",pair:null,pairApart:0,othersShown:!1,cutAt:{tilt:0,toward:0,offset:10},cutKerf:0,cutOf:"this",cutKeep:"both",cutLoose:"stay",cutGap:8,cutPoints:[],cutTried:null,cutFace:null,jointKey:"",joint:{kind:"peg",outline:"round",width_mm:5,depth_a_mm:5,depth_b_mm:5,turn_deg:0,taper_deg:0,clearance_mm:null,bevel_mm:.4,on:"b",thick_mm:1.5,catch_mm:.6},jointCount:2,zone:[],zoneText:"",cuts:null,cutsWork:null,cutsFit:!1,get severalParts(){return this.state.parts.length>1},async showPart(e){e!==this.state.part&&await this.change(Zi().part,{part:e})},get cutNormal(){let{tilt:e,toward:t}=this.cutAt,i=Math.sin(e*jr);return[i*Math.cos(t*jr),i*Math.sin(t*jr),Math.cos(e*jr)]},get cutRows(){let e=Math.hypot(...this.state.size_mm);return[{name:"offset",label:this.cutAt.tilt===0?"height":"along its normal",unit:"mm",low:-e,high:e+this.state.top_mm,step:.1},{name:"tilt",label:"tilt from level",unit:"\xB0",low:0,high:180,step:1},{name:"toward",label:"tilted towards",unit:"\xB0",low:-180,high:180,step:1}].map(i=>({...i,field:`cut-${i.name}`}))},get cutMiddle(){let e=this.cutNormal,t=[0,0,this.state.top_mm/2],i=this.cutAt.offset-l0(e,t);return t.map((n,s)=>n+i*e[s])},get cutBody(){return{plate_normal:this.cutNormal,plate_point:this.cutMiddle,kerf_mm:this.cutKerf}},beginCut(e){this.cutTool||(this.cutAt={tilt:0,toward:0,offset:this.layerHeightAt}),this.cutTool=e,this.cutPoints=[],this.closeFace(),this.tryCut()},get layerHeightAt(){let e=this.layer*this.state.layer_height_mm;return e>.02*this.state.top_mm?Number(e.toFixed(3)):Number((this.state.top_mm/2).toFixed(2))},levelCut(){this.cutAt={tilt:0,toward:0,offset:this.layerHeightAt},this.cutTool||="plane",this.tryCut()},setCutField(e,t){Number.isFinite(t)&&(this.cutAt[e]=t,this.tryCut())},setKerf(e){Number.isFinite(e)&&(this.cutKerf=e,this.tryCut())},setGap(e){this.cutGap=e,this.showCutPlane()},dragCut(e,t,i,n){e==="move"?this.cutAt.offset=Number((t.offset+Qr.along(i,n)).toFixed(2)):(this.cutAt.tilt=Math.min(Math.max(t.tilt-n/2,0),180),this.cutAt.toward=Number(((t.toward+i/2+540)%360-180).toFixed(1)),this.cutAt.tilt<2&&(this.cutAt.tilt=0)),this.tryCut()},cutPlane(e,t){let i=KE(e);i[2]<-1e-9&&(i=i.map(s=>-s));let n=Math.acos(Math.min(Math.max(i[2],-1),1))/jr;this.cutAt={tilt:n<1e-4?0:n,toward:n<1e-4?0:Math.atan2(i[1],i[0])/jr,offset:l0(i,t)},this.cutTool="plane",this.tryCut()},cutAlong(e){if(!e)return;let[t,i,n]=ct.view.model.cornersOf(e.facet),s=i.map((o,a)=>o-t[a]),r=n.map((o,a)=>o-t[a]);this.cutPlane([s[1]*r[2]-s[2]*r[1],s[2]*r[0]-s[0]*r[2],s[0]*r[1]-s[1]*r[0]],t)},cutThrough(e){if(!e||(this.cutPoints.push(e.point),ct.view.markPlaces(this.cutPoints.map(a=>[...a])),this.cutPoints.length<3))return;let[t,i,n]=this.cutPoints.splice(0);ct.view.markPlaces([]);let s=i.map((a,l)=>a-t[l]),r=n.map((a,l)=>a-t[l]),o=[s[1]*r[2]-s[2]*r[1],s[2]*r[0]-s[0]*r[2],s[0]*r[1]-s[1]*r[0]];if(Math.hypot(...o)<1e-6){this.problem="The three points lie on one line; choose others.";return}this.cutPlane(o,t)},async cutAlongCrease(e){if(e)try{let t=await zt(Zi().crease,{place_mm:e.point,facet:e.facet});this.cutPlane(t.normal,t.point)}catch(t){this.problem=t.message}},async mirrorCut(){try{let e=await zt(Zi().mirror,this.cutBody);this.cutPlane(e.normal,e.point)}catch(e){this.problem=e.message}},dragAgain(e){this.closeFace(),this.endTogether(),this.endCut(),this.cutMoved=e.key,Object.assign(this,{cutKerf:e.kerf_mm,cutKeep:e.keep,cutLoose:e.loose}),this.cutFlipped=e.plane.normal[2]<-1e-9,this.cutPlane(e.plane.normal,e.plane.point)},showCutPlane(){if(!Qr)return;if(!this.cutTool){Qr.update(null),ct.view.setSplit(null);return}let e=.62*Math.max(...this.state.size_mm),t=this.cutTried?de.raw(this.cutTried).lines:[];Qr.update({normal:this.cutNormal,point:this.cutMiddle,reach:e},t,this.cutGap),this.cutMoved?ct.view.setSplit(null):ct.view.setSplit({normal:this.cutNormal,offset:this.cutAt.offset},this.cutGap)},async tryCut(){if(this.showCutPlane(),this.cutWanted=!0,!this.cutAsking){this.cutAsking=!0;try{for(;this.cutWanted&&this.cutTool;){this.cutWanted=!1;let e=await zt(Zi().try,{...this.cutBody,...this.cutMoved?{key:this.cutMoved}:{}});this.cutTool&&(this.cutTried=e),this.problem="",this.showCutPlane()}}catch(e){this.cutTried=null,this.problem=e.message}finally{this.cutAsking=!1}}},get cutText(){return this.cutTried?`${ae(this.cutTried.area_mm2,1)} mm\xB2 cut face`:""},cutSideText(e){let t=`overhang ${ae(e.overhang_on_cut_mm2)} mm\xB2 on its cut, ${ae(e.overhang_as_it_is_mm2)} mm\xB2 as it is`;return`${ae(e.volume_mm3)} mm\xB3; ${t}`},get canCut(){return this.cutOf==="all"&&this.severalParts&&!this.cutMoved?!!this.cutTried:!!this.cutTried?.sides.every(e=>e.bodies>0)},async takeCut(){let e={...this.cutBody,keep:this.cutKeep,loose:this.cutLoose};this.cutMoved?(e.key=this.cutMoved,this.cutFlipped&&(e.plate_normal=e.plate_normal.map(n=>-n))):this.cutOf==="all"&&this.severalParts&&(e.part=this.state.part.split(".")[0]);let t=this.cutAt;await this.edit("cut",e)&&this.cutAt===t&&this.endCut()},endCut(){this.cutTool=this.cutMoved="",this.cutTried=null,this.cutPoints=[],ct.view.markPlaces([]),this.showCutPlane()},partText:e=>`${ae(e.volume_mm3)} mm\xB3`,cutSaid(e){let t=[e.seam?`seam \u201C${e.seam}\u201D`:"",e.joints?`${e.joints} joint${e.joints===1?"":"s"}`:"",e.dovetail?"dovetail":"",e.kerf_mm?`kerf ${e.kerf_mm} mm`:""];return[`of the ${e.of}`,...t.filter(Boolean)].join(", ")},async moveCut(e,t){let i=t.valueAsNumber;!Number.isFinite(i)||i===0||(await this.edit("cut",{key:e,by_mm:i},t),t.value=0)},nameSeam(e,t){return this.edit("cut",{key:e,seam:t.value},t)},async unCut(e){this.closeFace(),await this.edit("uncut",{key:e})},async lieOnCut(e){let t=await this.askFace(e);t&&await this.edit("stand_on",{down:t.down})},async showPair(e){try{this.endCut();let t=await Ne(`${Zi().pair}?cut=${encodeURIComponent(e)}`),i=await He(t.url),[n,s]=new Uint32Array(i,0,2),r=this.pair?.cut===e;this.othersShown=!1,this.pair=t,this.pairApart=r?Math.min(this.pairApart,t.reach_mm):t.reach_mm,wa.update([{corners:new Float32Array(i,8,9*n),colour:"sand"},{corners:new Float32Array(i,8+36*n,9*s),colour:"teal-pale"}],!0),this.pullApart(this.pairApart)}catch(t){this.endTogether(),this.problem=t.message}},pullApart(e){this.pairApart=e,wa.shift(this.pair.way.map(t=>t*e))},get pairText(){return`${this.pairApart.toFixed(1)} mm`},get pairReach(){return this.pair?1.5*this.pair.reach_mm:1},async showOthers(e){if(this.endTogether(),!!e)try{this.othersShown=!0;let t=new Float32Array(await He(`${Zi().others}?v=${this.state.key}`));this.othersShown&&wa.update([{corners:t,colour:"sand"}],!1)}catch(t){this.othersShown=!1,this.refused(t)}},endTogether(){(this.pair||this.othersShown)&&wa.update([],!1),this.pair=null,this.othersShown=!1},get assemblyUrl(){return this.severalParts?`${Zi().assembly}?of=${this.state.key}`:""},async askFace(e){try{return await Ne(`${Zi().face}?cut=${encodeURIComponent(e)}`)}catch(t){return this.problem=t.message,null}},async openFace(e){this.endCut();let t=await this.askFace(e);if(!t)return this.closeFace();let i=this.cutFace?.key!==e;this.cutFace=t,this.sectionOpen=!0,i&&(this.jointKey="",Object.assign(this.joint,{clearance_mm:t.clearance_mm,width_mm:t.width_mm})),this.drawCutFace(),await this.tryJoint()},closeFace(){this.cutFace=null,this.jointKey="",this.zone=[]},get chosenJoint(){return this.cutFace?.joints.find(e=>e.key===this.jointKey)??null},get jointSaid(){return this.chosenJoint??this.joint},get jointRows(){let e=this.jointSaid,t=(n,s,r,o)=>({name:n,label:s,unit:r,step:o,value:e[n],field:`joint-${n}`}),i=e.kind==="dowel";return[t("width_mm",e.kind==="snap"?"breadth":"width","mm",.5),...i||e.on==="b"?[t("depth_a_mm","depth into a","mm",.5)]:[],...i||e.on==="a"?[t("depth_b_mm","depth into b","mm",.5)]:[],...e.kind==="snap"?[t("thick_mm","thickness","mm",.1),t("catch_mm","catch","mm",.1)]:[t("taper_deg","taper","\xB0",1),t("bevel_mm","bevelled mouth","mm",.1)],t("turn_deg","turned by","\xB0",5),t("clearance_mm","clearance per side","mm",.05)]},get jointTitle(){return this.chosenJoint?`Joint ${this.jointKey}`:"New joint"},plainJoint(e){return Object.fromEntries(["kind","outline","width_mm","depth_a_mm","depth_b_mm","turn_deg","taper_deg","clearance_mm","bevel_mm","on","thick_mm","catch_mm"].filter(i=>e[i]!==null&&e[i]!==void 0).map(i=>[i,e[i]]))},async setJoint(e,t,i){typeof t=="number"&&!Number.isFinite(t)||(this.chosenJoint?await this.edit("joints",{cut:this.cutFace.key,joints:[{key:this.jointKey,[e]:t}]},i):(this.joint[e]=t,await this.tryJoint()))},async tryJoint(){if(this.cutFace)try{let e=await zt(Zi().joint,{cut:this.cutFace.key,joint:this.plainJoint(this.jointSaid)});this.zone=e.zone,this.zoneText=e.zone_mm2>0?`A joint like this fits in the shaded zone, ${ae(e.zone_mm2)} mm\xB2.`:"A joint like this fits nowhere on this face; try a smaller one.",this.drawCutFace()}catch(e){this.problem=e.message}},drawCutFace(){this.cutFace&&Ld(this.$refs.face,de.raw(this.cutFace),de.raw(this.zone),this.jointKey,{place:e=>this.placeJoint(e),choose:e=>this.chooseJoint(e),slide:e=>this.setTailAt(e),move:(e,t)=>this.edit("joints",{cut:this.cutFace.key,joints:[{key:e,uv:t}]})})},chooseJoint(e){this.jointKey=this.jointKey===e?"":e,this.drawCutFace(),this.tryJoint()},placeJoint(e,t=!1){return this.lastUv=e,this.edit("joints",{cut:this.cutFace.key,joints:[{uv:e,...this.plainJoint(this.joint),insist:t}]}).then(i=>{this.refusedJoint=!i})},refusedJoint:!1,insistOnJoint(){return this.placeJoint(this.lastUv,!0)},async placeJoints(){try{let e=await zt(Zi().places,{cut:this.cutFace.key,count:this.jointCount,joint:this.plainJoint(this.joint)});e.joints.length&&await this.edit("joints",{cut:this.cutFace.key,joints:e.joints}),e.note&&(this.problem=e.note)}catch(e){this.problem=e.message}},removeJoint(){let e=this.jointKey;return this.jointKey="",this.edit("joints",{cut:this.cutFace.key,remove:[e]})},setDovetail(e){let[t,i,n,s]=this.cutFace.bounds,r=n-t>s-i,o=Math.max(2,Number((.3*Math.min(n-t,s-i)).toFixed(1))),a=e?{uv:[(t+n)/2,(i+s)/2],width_mm:o,depth_mm:o/2,turn_deg:r?-90:0,clearance_mm:this.cutFace.clearance_mm}:null;return this.edit("cut",{key:this.cutFace.key,dovetail:a})},get tailRows(){let e=this.cutFace?.dovetail;if(!e)return[];let t=(i,n,s,r)=>({name:i,label:n,unit:s,step:r,value:e[i],field:`tail-${i}`});return[t("width_mm","width at the cut","mm",.5),t("depth_mm","depth","mm",.5),t("flank_deg","flanks lean","\xB0",1),t("turn_deg","slides towards","\xB0",5),t("taper_deg","taper along it","\xB0",.5),t("clearance_mm","clearance per side","mm",.05)]},setTailAt(e){let{width_mm:t,depth_mm:i,flank_deg:n,turn_deg:s,taper_deg:r,clearance_mm:o}=this.cutFace.dovetail;return this.edit("cut",{key:this.cutFace.key,dovetail:{uv:e,width_mm:t,depth_mm:i,flank_deg:n,turn_deg:s,taper_deg:r,clearance_mm:o}})},setTail(e,t,i){if(!Number.isFinite(t))return null;let{at:n,width_mm:s,depth_mm:r,flank_deg:o,turn_deg:a,taper_deg:l,clearance_mm:c}=this.cutFace.dovetail;return this.edit("cut",{key:this.cutFace.key,dovetail:{at:n,width_mm:s,depth_mm:r,flank_deg:o,turn_deg:a,taper_deg:l,clearance_mm:c,[e]:t}},i)},async loadCuts(e){if(e&&!this.cuts)return;let t=this.state.key;if(this.cuts=e&&this.cutsOf===t?this.cuts:null,!e)try{let i=await zt(Zi().propose,{fit:this.cutsFit});if(i.work){this.cutsWork=i.work;let n=await hi(i.work,s=>this.cutsWork=s);if(this.cutsWork=null,n.state!=="done"){n.state!=="cancelled"&&(this.problem=n.error);return}if(this.state.key!==t)return;i=await zt(Zi().propose,{fit:this.cutsFit})}this.cuts=i.cuts??null,this.cutsOf=t}catch(i){this.problem=i.message}finally{this.cutsWork=null}},async cancelCuts(){this.cutsWork&&await Li(this.cutsWork).catch(e=>this.problem=e.message)},cutPartText(e){return`${ae(e.volume_mm3)} mm\xB3, supports ${ae(e.support_mm3)} mm\xB3${e.fits?"":", does not fit"}`},lookAtCut(e){this.closeFace(),this.cutPlane(e.planes[0].normal,e.planes[0].point)},async takeProposedCut(e){await this.edit("several",{edits:de.raw(e.edits),what:"cut as proposed"})&&this.endCut()}}});var ZE=`
  varying vec3 vNormal;
  void main() {
    vNormal = normal;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }`,JE=`
  uniform vec3 tint;
  uniform vec3 eye;
  uniform float way;
  varying vec3 vNormal;
  void main() {
    float stripe = step(0.5, fract((gl_FragCoord.x + way * gl_FragCoord.y) / 8.0));
    float light = 0.75 + 0.25 * abs(dot(normalize(vNormal), eye));
    gl_FragColor = vec4(tint * light, 0.35 + 0.5 * stripe);
    #include <colorspace_fragment>
  }`,jE=16;function QE(e,t,i){let n=Ki(`nearest ${t}`,()=>new Yi({colorWrite:!1,transparent:!0,side:t,polygonOffset:!0,polygonOffsetFactor:-1,polygonOffsetUnits:-1})),s=new pe(e,n);return i||(s.onBeforeRender=r=>r.clearDepth()),s.renderOrder=3,s.frustumCulled=!1,s}var hh=class{group=new ee;constructor(t){this.view=t,this.handle=null,t.add(this)}update(t,i,n,s=!1){ce(this.group),this.handle=n;for(let[r,o,a,l]of[[t,"teal",1,!0],[i,"accent",-1,!1]]){if(!r?.length)continue;let c=new Jt;c.setAttribute("position",new Zt(r,3)),c.computeVertexNormals();let h=Ki(`hatch ${o}`,()=>new qe({vertexShader:ZE,fragmentShader:JE,transparent:!0,depthWrite:!1,side:l?di:Te,polygonOffset:!0,polygonOffsetFactor:-1,polygonOffsetUnits:-1,uniforms:{tint:{value:new C(...bn(o))},eye:this.view.uniforms.eye,way:{value:a}}}));h.depthTest=l||s,s&&this.group.add(QE(c,h.side,l));let u=new pe(c,h);u.renderOrder=3,u.frustumCulled=!1,this.group.add(u)}if(n){let r=Yr(Math.max(...this.view.size)*.016,"change",ne("ink"));r.position.set(...n),r.renderOrder=5,r.frustumCulled=!1,this.group.add(r)}this.view.draw()}holds(t,i){if(!this.handle)return!1;let n=this.view.canvas.getBoundingClientRect(),[s,r]=this.view.toScreen(this.handle);return Math.hypot(s+n.left-t,r+n.top-i)<jE}dispose(){ce(this.group)}};var Qs=()=>dt.urls.reshape,uh=e=>Do(e,0,e<10?1:0),Nd=e=>new Float32Array(Uint8Array.from(atob(e),t=>t.charCodeAt(0)).buffer),fh=e=>dt.changes.find(t=>t.key===e),u0="o",tA=1200,f0=3,Ma,dh;Ti("reshape",{hint(e){return e.changeTool?e.changePlace||e.changeTried?"Drag the ball up or down, or type; another click chooses another place":fh(e.changeTool).needs_place?"Click the place":"":""},inHand:e=>!!e.changeTool,enter(e){Ma??=new hh(ct.view),dh??=new Jr(ct.view),e.watchBefore(!0),e.joinWork("find_small",({volume_mm3:t,move_mm:i})=>{e.smallWork||(Object.assign(e,{smallVolume:t,smallMove:i}),e.findSmall())})},leave(e){e.endChange(),e.showBefore(!1),e.watchBefore(!1)},shown(e){e.smallOf!==e.state.key&&(e.small=null),e.changeTool&&e.tryChange()},grab(e,t,i,n){if(!e.changeTool||!Ma?.holds(t,i))return null;let s=e.changeRows.find(a=>!a.choices.length);if(!s)return null;let r=s.value,o=s.unit==="\xB0"?.25:Math.max(r,.5)/60;return{follow:a=>e.dragChangeSize(s.name,Number(Math.min(Math.max(r-(a.clientY-n.clientY)*o,s.low),s.high).toFixed(2))),drop:()=>e.restChange()}},click(e,t,i){e.changeTool&&e.changeAt(ct.view.pick(t,i))},escape:e=>e.endChange(),data:{changeKinds:dt.changes,changeTool:"",changeKey:"",changePlace:null,changePoint:null,changeSize:{},changeMoving:!1,changeTurn:0,changeBoth:!1,changeTried:null,changeWork:null,changeProblem:"",changeGain:null,changeRefused:!1,beforeShown:!1,small:null,smallTicked:[],smallWork:null,smallVolume:2e3,smallMove:20,get changeAbout(){return fh(this.changeTool)?.about??""},get changeNeedsPlace(){return!!fh(this.changeTool)?.needs_place&&!this.changePlace&&!this.changeKey},sizeNow(e){return this.changeSize[e]??this.changeTried?.size[e]??this.state.usual_sizes[this.changeTool]?.[e]},firstChoice(e,t){return e.dimensions.find(i=>i.key===t).choices[0]},get changeRows(){let e=fh(this.changeTool);if(!e)return[];let t=({only_with:[i,n]})=>!i||(this.sizeNow(i)??this.firstChoice(e,i))===n;return e.dimensions.filter(t).map(i=>({...i,name:i.key,field:`change-${i.key}`,range:`change-${i.key}-range`,value:this.sizeNow(i.key)??i.choices[0]??i.low,top:i.unit==="\xB0"?i.high:Math.min(i.high,4*Math.max(this.sizeNow(i.key)??1,1))}))},get changeBody(){let{changeKey:e,changeTool:t,changePlace:i}=this;return{...e?{key:e}:{change:t},...i?{places:[i]}:{},...i&&this.changeBoth?{both:!0}:{},size:this.changeSize}},beginChange(e){let t=this.changeTool===e&&!this.changeKey;this.endChange(),!t&&(this.changeTool=e,this.changeTurn+=1,this.tryChange())},openChange(e){this.endChange(),this.changeTurn+=1,Object.assign(this,{changeTool:e.change,changeKey:e.key,changeSize:{...e.size},changePoint:e.places_mm[0]??null}),this.tryChange()},changeAt(e){e&&(this.changePlace={facet:e.facet,weights:e.weights},this.changePoint=e.point,this.tryChange())},setChangeSize(e,t){typeof t=="number"&&!Number.isFinite(t)||(this.changeSize={...this.changeSize,[e]:t},this.tryChange())},dragChangeSize(e,t){this.changeMoving=!0,this.setChangeSize(e,t),clearTimeout(this.restTimer),this.restTimer=setTimeout(()=>this.restChange(),tA)},restChange(){clearTimeout(this.restTimer),this.changeMoving=!1,this.tryChange()},setChangeBoth(e){this.changeBoth=e,this.tryChange()},async tryChange(){if(!(!this.changeTool||this.changeNeedsPlace)){if(this.changeWanted=!0,this.changeAsking){this.cancelTried();return}this.changeAsking=!0;try{for(;this.changeWanted&&this.changeTool;){this.changeWanted=!1;let e=this.state.key;try{let t=await this.askTried({...this.changeBody,is_moving:this.changeMoving});if(!this.changeTool||this.state.key!==e)continue;t?this.showTried(t):this.changeWanted||this.showNoChange("Stopped; with other numbers it is tried again.")}catch(t){this.showNoChange(t.message)}}}finally{this.changeAsking=!1}this.askGain()}},showNoChange(e){this.changeTried=this.changeGain=null,this.changeProblem=e,Ma.update(null,null,null)},showTried(e){this.changeTried=e,this.changeProblem="",Ma.update(Nd(e.added),Nd(e.taken),this.changeHandle(e),e.is_about)},async askTried(e){let t=await zt(Qs().try,e);if(!t.work)return t;this.changeTried=null,this.changeProblem="",this.changeWork=t.work;try{let n=await zt(Qs().try,{...e,is_moving:!0}).catch(()=>null);n?.is_about&&this.changeTool&&!this.changeWanted&&this.showTried(n);let s=await hi(t.work,r=>this.changeWork=r);if(s.state==="cancelled")return null;if(s.state!=="done")throw new Error(s.error)}finally{this.changeWork=null}let i=await zt(Qs().try,e);return i.work?null:i},async cancelTried(){this.changeWork&&await Li(this.changeWork).catch(e=>this.problem=e.message)},changeHandle(e){if(this.changePoint)return[...this.changePoint];let t=Nd(e.added||e.taken);return t.length?[t[0],t[1],t[2]]:null},askGain(){clearTimeout(this.gainTimer),this.changeGain=null,!(!this.changeTried||this.changeTried.is_about)&&(this.gainTimer=setTimeout(async()=>{let e=this.changeBody;try{let t=await zt(Qs().gain,e);JSON.stringify(e)===JSON.stringify(this.changeBody)&&this.changeTool&&(this.changeGain=t)}catch{this.changeGain=null}},300))},get changeCoarse(){return this.changeTried?.is_about?"":null},get changeText(){let e=this.changeTried;if(!e)return"";if(e.is_about)return this.changeWork?"About so; its numbers come.":"Let go, and its numbers come.";let t=[];return e.added_mm3>.005&&t.push(`${uh(e.added_mm3)} mm\xB3 added`),e.taken_mm3>.005&&t.push(`${uh(e.taken_mm3)} mm\xB3 taken away`),`${t.join(", ")}; the surface moves by ${e.farthest_mm.toFixed(2)} mm at most.`},get gainText(){let e=this.changeGain;if(this.changeTried?.is_about)return"";if(!e)return this.changeTried?"Looking what the ledger gains \u2026":"";let i=[...new Set([...Object.keys(e.before.kinds),...Object.keys(e.after.kinds)])].map(n=>[n,e.before.kinds[n]??0,e.after.kinds[n]??0]).filter(([,n,s])=>n!==s).map(([n,s,r])=>`${n} ${s} \u2192 ${r}`);return`Problems ${e.before.problems} \u2192 ${e.after.problems}${i.length?`: ${i.join(", ")}`:""}.`},async takeChange(e=!1){let t=this.changeTurn,i=await this.edit("reshape",{...this.changeBody,insist:e});t===this.changeTurn&&(this.changeRefused=!i&&!e,i&&this.endChange())},async levelFirst(){try{let{anchors:e}=await Ne(Qs().low);await this.edit("level",{anchors:e})&&this.tryChange()}catch(e){this.changeProblem=e.message}},endChange(){clearTimeout(this.gainTimer),clearTimeout(this.restTimer),this.cancelTried(),Object.assign(this,{changeMoving:!1,changeTool:"",changeKey:"",changePlace:null,changePoint:null,changeSize:{},changeTried:null,changeGain:null,changeProblem:"",changeRefused:!1}),Ma?.update(null,null,null)},changeSaid(e){let{told:t}=e;if(!e.on)return"off";let i=[];return t.added_mm3>.005&&i.push(`+${uh(t.added_mm3)} mm\xB3`),t.taken_mm3>.005&&i.push(`\u2212${uh(t.taken_mm3)} mm\xB3`),i.push(`moves ${t.farthest_mm.toFixed(1)} mm`),i.join(", ")},switchChange(e){return this.edit("reshapes",e.on?{off:[e.key]}:{on:[e.key]})},removeChange(e){return this.changeKey===e&&this.endChange(),this.edit("reshapes",{remove:[e]})},moveChange(e,t){let i=this.state.changes.map(r=>r.key),n=i.indexOf(e),s=Math.min(Math.max(n+t,0),i.length-1);return s===n?null:(i.splice(s,0,...i.splice(n,1)),this.edit("reshapes",{order:i}))},dragChange(e,t){e.dataTransfer.setData("text/plain",t),this.changeDragged=t},dropChange(e){let t=this.state.changes.map(n=>n.key),i=t.indexOf(e)-t.indexOf(this.changeDragged);return this.changeDragged&&i?this.moveChange(this.changeDragged,i):null},watchBefore(e){this.beforeKeys??=[i=>i.key.toLowerCase()===u0&&!i.repeat&&this.letterKeys&&!i.ctrlKey&&!i.metaKey&&!i.target.closest?.("input, select, textarea")&&this.showBefore(!0),i=>i.key.toLowerCase()===u0&&this.showBefore(!1)];let t=e?"addEventListener":"removeEventListener";window[t]("keydown",this.beforeKeys[0]),window[t]("keyup",this.beforeKeys[1])},async showBefore(e){if(!(e===this.beforeShown||!dh)){if(this.beforeShown=e,!e)return dh.update([],!1);try{this.beforeOf!==this.state.key&&(this.beforeCorners=new Float32Array(await He(`${Qs().before}?v=${this.state.key}`)),this.beforeOf=this.state.key),this.beforeShown&&dh.update([{corners:de.raw(this.beforeCorners),colour:"sand"}],!0)}catch(t){this.beforeShown=!1,this.refused(t)}}},async findSmall(){let e=this.state.key;this.small=null,this.smallTicked=[];try{let t={volume_mm3:this.smallVolume,move_mm:this.smallMove},i=await zt(Qs().small,t);if(!i.work)return this.showSmall(i,e);this.smallWork=i.work;let n=await hi(i.work,s=>{this.smallWork=s.open?s:null,this.state.key===e&&this.showSmall(s.result,e)});n.state==="failed"&&(this.problem=n.error)}catch(t){this.problem=t.message}finally{this.smallWork=null}},showSmall(e,t){if(!e.changes)return;let i=this.small?.length??0;this.small=e.changes,this.smallLarger=e.larger,this.smallNotTried=e.not_tried,this.smallTicked=[...this.smallTicked.filter(n=>n<i),...e.changes.map((n,s)=>s).slice(i)],this.smallOf=t},smallLarger:0,smallNotTried:[],async cancelSmall(){this.smallWork&&await Li(this.smallWork).catch(e=>this.problem=e.message)},isTicked(e){return this.smallTicked.includes(e)},tickSmall(e){this.smallTicked=this.isTicked(e)?this.smallTicked.filter(t=>t!==e):[...this.smallTicked,e]},get smallText(){if(!this.small)return"";let e=this.smallLarger?` ${this.smallLarger} more are larger than that.`:"";return this.smallWork?`${this.small.length} found so far.`:this.small.length?`${this.small.length} found, each checked with those above it made.${e}`:`None was found that clears a problem.${e}`},smallRowText({clears:e}){let t=e.length-f0;return`clears ${e.slice(0,f0).join(", ")}${t>0?` and ${t} more`:""}`},async makeSmall(){let e=this.small.filter((t,i)=>this.isTicked(i)).map(t=>({kind:"reshape",parameters:{change:t.change,places:t.places,size:t.size}}));e.length&&await this.edit("several",{edits:e,what:`${e.length} small change${e.length===1?"":"s"}`})}}});var eA="http://www.w3.org/2000/svg",to=(e,t,i,n)=>{let s=document.createElementNS(eA,t);for(let[r,o]of Object.entries(i))s.setAttribute(r,o);n!==void 0&&(s.textContent=n),e.append(s)};function d0(e,t){e.replaceChildren();let i=t?.rods??[];if(!i.length)return;let[n,s]=i[0],[,,,r,o]=i[i.length-1],a=Math.hypot(r-n,o-s),[l,c]=a>1e-6?[(r-n)/a,(o-s)/a]:[1,0],h=i.map(([S,v,w,T,_,M,L,A])=>[(S-n)*l+(v-s)*c,w,(T-n)*l+(_-s)*c,M,L,A]),u=Math.min(...h.map(([S,,v,,w,T])=>Math.min(S-w,v-T))),f=Math.max(...h.map(([S,,v,,w,T])=>Math.max(S+w,v+T))),d=Math.max(...h.map(([,S,,v])=>Math.max(S,v))),g=Math.min(205/Math.max(d,1e-6),76/Math.max(f-u,1e-6)),x=226,p=S=>42+(S-(u+f)/2)*g,m=S=>x-S*g;for(let[S,v,w,T,_,M]of h){let L=Math.hypot(w-S,T-v)||1,[A,R]=[-(T-v)/L,(w-S)/L],P=[[S+A*_,v+R*_],[w+A*M,T+R*M],[w-A*M,T-R*M],[S-A*_,v-R*_]];to(e,"path",{d:`M${P.map(([O,N])=>`${p(O)} ${m(N)}`).join("L")}Z`,fill:xe("teal-pale"),stroke:xe("teal"),"stroke-width":1.4,"stroke-linejoin":"round"})}if(to(e,"path",{d:`M2 ${x}H82`,stroke:xe("ink"),"stroke-width":2}),t.has_contact&&to(e,"path",{d:`M10 ${m(t.contact_mm[2])}H74`,stroke:xe("plum"),"stroke-dasharray":"3 2"}),to(e,"text",{x:2,y:x+16,"font-size":12,fill:xe("ink")},`${d.toFixed(1)} mm tall`),!t.size.contact_mm)return;let y=t.size.contact_mm/2*30;to(e,"circle",{cx:42,cy:282,r:Math.min(y,30),fill:xe("teal")}),to(e,"text",{x:2,y:326,"font-size":12,fill:xe("ink")},y>30?"contact":"contact, 30 : 1")}var gh=({facet:e,weights:t})=>({facet:e,weights:t}),p0=e=>({support:"pillar",ends:[gh(e),{plate:null}]}),iA=e=>dt.kinds.find(t=>t.key===e),ph=.5,mh=(e,t)=>(i,n)=>i.nudgeChosen(e*(n.shiftKey?10:1),t*(n.shiftKey?10:1));Ti("prop",{enter(e){e.drawSupports(),e.drawChosenPillar(),e.loadHeld(),e.loadOthers(),e.joinWork("find_supports",({clear:t,where:i,profile:n,habits:s})=>{s||e.proposalWork||(e.asked={clear:t,where:i,profile:n,habits:""},e.propose())})},leave(e){e.endTool(),ct.view.setSupports(ct.view.supports.list,[],[]),ct.view.setWash(null)},hint:e=>e.toolHint,inHand:e=>!!e.tool,shown:e=>e.loadHeld(),grab(e,t,i,n){if(n.shiftKey)return e.startBox(n);let s=e.tool==="pillar"?ct.view.pickSupport(t,i):null;return!s||e.isStand(s.key)?s&&e.startStand(s,n):s.isHandle?s:e.startJoining(s,n)},dragging:(e,t,i)=>e.previewSupport(t.key,i),dropped:(e,t,i)=>e.dropSupport(t.key,i),click:(e,t,i,n,s)=>e.propAt(t,i,n,s),escape(e){e.endTool(),e.chooseNone()},keys:{Delete:e=>e.removeChosen(),ArrowLeft:mh(-ph,0),ArrowRight:mh(ph,0),ArrowUp:mh(0,ph),ArrowDown:mh(0,-ph)},data:{chosenKeys:[],tool:"pillar",firstEnd:null,asked:{clear:"risky",where:"plate",profile:"medium",habits:""},proposal:null,proposalWork:null,leftOut:[],strength:{},spread:{spacing:5,turn:0,facet:null,count:null,supports:[]},rowCount:2,get chosenPillar(){return this.state.pillars.find(e=>e.key===this.pillarKey)??null},get pillarKey(){return this.chosenKeys[0]??null},get chosenSupports(){return this.state.pillars.filter(e=>this.chosenKeys.includes(e.key))},get chosenTitle(){let e=this.chosenSupports;return e.length===1?`Dimensions of ${e[0].label} ${e[0].key}`:e.length?`Dimensions of ${e.length} supports`:""},get chosenDimensions(){let[e,...t]=this.chosenSupports;return e?(iA(e.kind)?.dimensions??[]).filter(i=>t.every(n=>i.key in n.size)).map(i=>({...i,field:`size-${i.key}`,isNumber:!i.choices.length,value:e.size[i.key],unit:i.unit})):[]},get toolHint(){return this.tool==="strut"?this.firstEnd?"Click where it ends: the model, a support, or the plate beside it":"Click the underside or the support that the strut begins at":this.tool==="tie_bar"?this.firstEnd?"Click the other end":"Click one of the two ends to tie":this.tool==="face"?"Click the underside that is to be set with contacts":this.tool==="ring"?"Click the wall of a round hole that lies on its side":"Click an underside to stand a pillar; drag a contact to move it"},get canBrace(){return this.chosenSupports.filter(e=>e.kind==="pillar"||e.kind==="strut").length>1},get canRow(){return this.chosenSupports.length===2&&this.chosenSupports.every(e=>e.kind==="pillar")},get troubled(){let e=this.state.pillars.filter(t=>this.strength[t.key]?.text).length;return e?`${e} bend${e===1?"s":""} or ${e===1?"is":"are"} too weak.`:""},get supportSums(){let e=Object.values(this.strength);if(!e.length)return"";let t=s=>e.reduce((r,o)=>r+o[s],0),i=e.filter(s=>!s.reached).length,n=[`${ae(t("volume_mm3"))} mm\xB3`,`contacts ${ae(t("scar_mm2"),2)} mm\xB2`];return i&&n.push(`${i} out of the tool\u2019s reach`),n.join(" \xB7 ")},get proposalText(){let e=this.proposal;if(!e)return"";let t=e.supports.length===1;return e.supports.length?`${e.supports.length} support${t?"":"s"}, ${ae(e.volume_mm3)} mm\xB3 (plain grid supports ${ae(e.grid_support_mm3)} mm\xB3), contacts ${ae(e.contact_area_mm2,2)} mm\xB2. Will fail: ${e.before.will_fail} \u2192 ${e.after.will_fail}; risky: ${e.before.risky} \u2192 ${e.after.risky}.`:e.unreachable.length?"No contact was found for what hangs.":"Nothing needs a support."},get takeText(){let e=this.keptProposed.length;return`Stand ${e===this.proposal?.supports.length?"all":"these"} ${e}`},get keptProposed(){let e=new Set(this.leftOut);return(this.proposal?.supports??[]).filter(t=>!e.has(t.key)&&!t.ends.some(i=>e.has(i.support)))},percentOf:e=>e?Math.round(100*e.done):0,workText:e=>e?`${e.stage} \u2026`:"",contactText(e){return e.has_contact?e.fit==="lost"?`Was at z = ${e.contact_mm[2].toFixed(2)} mm`:`Contact at z = ${e.contact_mm[2].toFixed(2)} mm, surface at ${e.contact_slope_deg.toFixed(0)}\xB0`:e.why},nameText:e=>`${e.label[0].toUpperCase()}${e.label.slice(1)} ${e.key}`,fitText:e=>({stands:"stands",lost:"lost"})[e.fit]??"cannot stand",isChosen(e){return this.chosenKeys.includes(e)?"true":"false"},strengthText(e){let t=this.strength[e];if(!t)return"";let i=t.text?[t.text]:[];return t.reached||i.push("No straight tool of 3 \xD7 60 mm gets to its contact."),t.on_show&&i.push("It marks the show side."),i.join(" ")},canThicken(e){return this.strength[e]?.cure==="thicken"},thickenText(e){return`Thicken to ${this.strength[e]?.shaft_mm} mm`},thicken(e){let t=this.strength[e].shaft_mm,i=this.state.pillars.find(s=>s.key===e),n=Math.max(i.size.foot_mm,t);return this.edit("support",{key:e,size:{shaft_mm:t,foot_mm:n,pad_mm:Math.max(i.size.pad_mm,n)}})},bends(e){return!!this.strength[e]?.bends},braceIt(e){return this.setOut("braces",{keys:e?[e]:[]},"braces for what bends")},get someBend(){return Object.values(this.strength).some(e=>e.bends)},bentTimes:0,async showBent(){this.bentTimes=0;let e=this.pillarKey;if(!(this.chosenKeys.length!==1||!this.strength[e]?.bends))try{let t=await zt(dt.urls.set_out,{how:"bent",key:e});if(this.pillarKey!==e||this.activity!=="prop")return;this.bentTimes=t.times,ct.view.markPlaces(t.places)}catch{}},get bentText(){return this.bentTimes>1?`Dotted: as it bends, drawn ${this.bentTimes} times as much.`:this.bentTimes?"Dotted: as it bends.":""},get profileNames(){return Object.keys(this.state.profiles)},get canProfile(){return this.chosenSupports.length>0&&this.chosenSupports.every(e=>"foot_mm"in e.size)},takeProfile(e,t){if(t.value="",!(e in this.state.profiles))return null;let[i,n,s]=this.state.profiles[e],r=o=>({contact_mm:i,shaft_mm:n,foot_mm:s,pad_mm:Math.max(s,o.size.pad_mm*s/o.size.foot_mm)});return this.edit("supports",{supports:this.chosenSupports.map(o=>({key:o.key,size:r(o)})),what:`${e} supports`})},setTool(e){this.endTool(),this.tool=e},endTool(){this.firstEnd=null,this.spread={...this.spread,facet:null,count:null,supports:[]},ct.view.markPlaces([]),this.tool="pillar"},async propAt(e,t,i,n){let s=i?.key?i:ct.view.pickSupport(e,t);if(this.tool==="strut"||this.tool==="tie_bar")return this.endAt(e,t,s);if(this.tool==="face")return this.faceAt(ct.view.pick(e,t));if(this.tool==="ring")return this.ringAt(ct.view.pick(e,t));if(s)return n?.shiftKey?this.toggleChosen(s.key):this.choosePillar(s.key,!1);let r=ct.view.pick(e,t);if(!r||n?.shiftKey)return;let o=new Set(this.state.pillars.map(a=>a.key));await this.edit("support",p0(r))?this.chooseNew(o):this.showRefused(p0(r))},async endAt(e,t,i){let n=ct.view.pick(e,t),s=i&&this.tool==="strut"?{support:i.key,t:null}:n?gh(n):this.firstEnd?this.plateAt(e,t):null;if(!s)return;if(!this.firstEnd){this.firstEnd=s,n&&ct.view.markPlaces([n.point]);return}let r={support:this.tool,ends:[this.firstEnd,s]},o=new Set(this.state.pillars.map(a=>a.key));this.endTool(),await this.edit("support",r)?this.chooseNew(o):this.showRefused(r)},plateAt(e,t){let i=ct.view.plateAt(e,t);return i?{plate:i}:null},async showRefused(e){try{let t=await zt(dt.urls.preview,e);if(t.fit==="stands")return;this.drawSupports([t]),this.refusedSupport=t.rods.length?e:null}catch{}},refusedSupport:null,insist(){let e=this.refusedSupport;return this.refusedSupport=null,e&&this.edit("support",{...e,insist:!0})},startJoining(e,t){let i=[t.clientX,t.clientY],n=null;return{key:e.key,clicks:!0,follow:s=>{n=[s.clientX,s.clientY];let r=ct.view.pick(...n);ct.view.markPlaces(r?[r.point]:[])},drop:()=>{if(ct.view.markPlaces([]),!n||Math.hypot(n[0]-i[0],n[1]-i[1])<5)return;let s=ct.view.pickSupport(...n);if(s?.key===e.key)return;let r={support:e.key,t:null};if(s)return this.join({support:"brace",ends:[r,{support:s.key,t:null}]});let o=ct.view.pick(...n);return o&&this.join({support:"strut",ends:[gh(o),r]})}}},async join(e){let t=new Set(this.state.pillars.map(i=>i.key));await this.edit("support",e)?this.chooseNew(t):this.showRefused(e)},isStand(e){return this.state.pillars.find(t=>t.key===e)?.kind==="stand"},get chosenPlace(){let e=this.chosenPillar;return e?.kind==="stand"&&this.chosenKeys.length===1?e.ends[0].plate??[0,0]:null},standAt(e){return this.chosenPlace?this.tidy(this.chosenPlace[e]):0},setPlace(e,t){let i=[...this.chosenPlace];return i[e]=t.valueAsNumber,this.edit("support",{key:this.pillarKey,ends:[{plate:i}]},t)},async bringStand(e){let t=e.files[0];if(e.value="",!t)return;this.problem="";let i=new Set(this.state.pillars.map(n=>n.key));try{let{name:n,mesh:s}=await Fs(sg(dt.urls.shape,t,()=>{}));await this.edit("stand",{name:n,mesh:s})&&this.chooseNew(i)}catch(n){this.problem=n.message}},startStand(e,t){let i=this.state.pillars.find(o=>o.key===e.key),n=ct.view.plateAt(t.clientX,t.clientY),s=i.ends[0].plate??[0,0],r=null;return{key:e.key,clicks:!0,follow:o=>{let a=ct.view.plateAt(o.clientX,o.clientY);!n||!a||(r=[s[0]+a[0]-n[0],s[1]+a[1]-n[1]],ct.view.markPlaces([[...r,.1]]))},drop:()=>(ct.view.markPlaces([]),this.chosenKeys=[e.key],r&&this.edit("support",{key:e.key,ends:[{plate:r}]}))}},keepChosen(e){let t=new Set(e.pillars.map(i=>i.key));this.chosenKeys=this.chosenKeys.filter(i=>t.has(i)),this.refusedSupport=null,this.proposal&&this.proposal.of!==e.key&&this.dropProposal(),e.solids_url!==this.shownSolids&&this.loadSolids(e.solids_url)},async loadSolids(e){this.shownSolids=e;let t=e?await He(e).catch(()=>null):null;this.shownSolids===e&&ct.view.setSolids(t?new Float32Array(t,4):null)},drawSupports(e=[]){let t=this.activity==="prop"&&this.proposal?this.proposal.drawn.filter(i=>this.keptProposed.some(n=>n.key===i.key)).map(i=>({...i,proposed:!0})):[];ct.view.setSupports(de.raw(this.state.pillars),this.activity==="prop"?de.raw(this.chosenKeys):[],[...de.raw(t),...e])},chooseKeys(e){this.chosenKeys=e,this.bentTimes&&ct.view.markPlaces([]),this.showBent(),this.drawSupports(),this.drawChosenPillar()},chooseNew(e){this.chooseKeys(this.state.pillars.filter(t=>!e.has(t.key)).map(t=>t.key))},chooseNone(){this.chooseKeys([])},chooseAll(){this.chooseKeys(this.state.pillars.map(e=>e.key))},chooseAlike(){let e=new Set(this.chosenSupports.map(t=>t.kind));this.chooseKeys(this.state.pillars.filter(t=>e.has(t.kind)).map(t=>t.key))},toggleChosen(e){this.chooseKeys(this.chosenKeys.includes(e)?this.chosenKeys.filter(t=>t!==e):[...this.chosenKeys,e])},clickListed(e,t){if(t.shiftKey||t.ctrlKey||t.metaKey)return this.toggleChosen(e);this.choosePillar(e)},choosePillar(e,t=!0){this.chooseKeys([e]);let i=this.chosenPillar;i&&t&&(ct.view.showPlace(i.contact_mm,i.has_contact),this.setLayer(this.state.layers_of_pillars[e]))},startBox(e){let t=ct.view.canvas.getBoundingClientRect(),i=[e.clientX,e.clientY],n=this.$refs.box,s=o=>[Math.min(i[0],o[0])-t.left,Math.min(i[1],o[1])-t.top,Math.abs(o[0]-i[0]),Math.abs(o[1]-i[1])],r=i;return{clicks:!0,follow:o=>{r=[o.clientX,o.clientY];let[a,l,c,h]=s(r);Object.assign(n.style,{left:`${a}px`,top:`${l}px`,width:`${c}px`,height:`${h}px`}),n.hidden=!1},drop:()=>{n.hidden=!0;let[o,a,l,c]=s(r),h=this.state.pillars.filter(u=>{let[f,d]=ct.view.toScreen(u.contact_mm);return f>=o&&f<=o+l&&d>=a&&d<=a+c});this.chooseKeys([...new Set([...this.chosenKeys,...h.map(u=>u.key)])])}}},drawChosenPillar(){this.$refs.profile&&d0(this.$refs.profile,de.raw(this.chosenPillar))},async previewSupport(e,t){if(this.dragTo={key:e,hit:t},!this.fitting){this.fitting=!0;try{for(;this.dragTo;){let{key:i,hit:n}=this.dragTo;this.dragTo=null;let s=await zt(dt.urls.preview,{key:i,ends:this.endsAt(i,n)});this.fitting&&this.drawSupports([s])}}catch(i){this.problem=i.message}finally{this.fitting=!1}}},endsAt(e,t){let i=this.state.pillars.find(n=>n.key===e);return[gh(t),...(i?.ends??[null,{plate:null}]).slice(1)]},async dropSupport(e,t){if(this.dragTo=null,this.fitting=!1,this.chosenKeys=[e],!t)return this.drawSupports();await this.edit("support",{key:e,ends:this.endsAt(e,t)})},resize(e,t){let i=t.type==="number"?t.valueAsNumber:t.value,n={[e]:i};if(this.chosenKeys.length===1)return this.edit("support",{key:this.pillarKey,size:n},t);if(this.chosenKeys.length)return this.edit("supports",{supports:this.chosenKeys.map(s=>({key:s,size:n})),what:`${this.chosenKeys.length} supports`},t)},removeChosen(){if(this.chosenKeys.length===1)return this.edit("remove_support",{key:this.pillarKey});if(this.chosenKeys.length)return this.edit("supports",{remove:this.chosenKeys,what:`remove ${this.chosenKeys.length} supports`})},nudgeChosen(e,t){return this.chosenKeys.length?this.edit("supports",{supports:this.chosenKeys.map(i=>({key:i,by_mm:[e,t]})),what:"nudge supports"}):this.step(t>0?1:t<0?-1:0)},duplicate(){let e=this.chosenSupports.filter(t=>t.kind==="pillar").map(t=>({copy_of:t.key,by_mm:[2,0]}));if(e.length)return this.editMany(e,"duplicate supports")},async editMany(e,t){let i=new Set(this.state.pillars.map(s=>s.key)),n=await this.edit("supports",{supports:e,what:t});return n&&this.chooseNew(i),n},brace(){let e=this.chosenSupports.filter(t=>t.kind==="pillar"||t.kind==="strut").map(t=>({support:t.key,t:null}));return this.edit("support",{support:"brace",ends:e})},raft(e){let t=e?this.chosenSupports.filter(i=>i.kind==="pillar"||i.kind==="strut").map(i=>({support:i.key,t:null})):[];return this.edit("support",{support:"raft",ends:t})},brim(e){return this.edit("support",{support:"brim",ends:[],size:{lies:e}})},async setOut(e,t,i){this.problem="";try{let n=await zt(dt.urls.set_out,{how:e,keys:this.chosenKeys,...t}),s=n.alone.length?`Nothing on the other side matches ${n.alone.join(", ")}.`:"";await this.editMany(n.supports,i),n.line&&ct.view.markPlaces(n.line),s&&(this.problem=[this.problem,s].filter(Boolean).join(" "))}catch(n){this.problem=n.message}},row(){return this.setOut("row",{count:Math.round(this.rowCount)},"a row of supports")},get mirrorAbout(){return this.mirrorBy==="found"?{}:{about_deg:Number(this.mirrorBy)}},otherSide(){return this.setOut("other_side",this.mirrorAbout,"supports on the other side")},async lookAtOtherSide(){let e=[...this.chosenKeys],t=await zt(dt.urls.set_out,{how:"other_side",keys:e,...this.mirrorAbout}).catch(()=>null);t?.line&&e.join()===this.chosenKeys.join()&&ct.view.markPlaces([...t.line,...t.places])},mirrorBy:"found",ringAt(e){return this.endTool(),e&&this.setOut("ring",{facet:e.facet},"contact at the top of a ring")},others:[],carriedFrom:"",carried:null,async loadOthers(){try{this.others=(await Ne(dt.urls.others)).stances}catch(e){this.problem=e.message}},async tryCarry(e){if(this.carriedFrom=e,this.carried=null,this.problem="",ct.view.markPlaces([]),!!e)try{let t=await zt(dt.urls.set_out,{how:"carry",from:Number(e)});if(this.carriedFrom!==e)return;this.carried=t,ct.view.markPlaces(t.places)}catch(t){this.problem=t.message}},get carriedText(){let e=this.carried;if(!e)return"";let t=i=>e.reports.filter(n=>n.outcome===i).length;return`${e.said}. ${t("fits")} fit, ${t("moved")} moved, ${t("lost")} lost.`},get carriedTold(){return(this.carried?.reports??[]).filter(e=>e.text).map(e=>`${e.key}: ${e.text}`)},get carryText(){let e=this.carried?.supports.length??0;return`Stand ${e===1?"it":`these ${e}`}`},async takeCarried(){let e=de.raw(this.carried.supports);this.carriedFrom="",this.carried=null,ct.view.markPlaces([]),await this.editMany(e,"supports carried over")},faceAt(e){if(e)return this.spread={...this.spread,facet:e.facet},this.trySpread()},spreadRim:!1,setRim(e){return this.spreadRim=e,this.trySpread()},setSpread(e,t){if(Number.isFinite(t))return this.spread={...this.spread,[e]:t},this.trySpread()},async trySpread(){if(this.spread.facet===null)return;this.problem="";let{facet:e,spacing:t,turn:i}=this.spread;try{let n=await zt(dt.urls.set_out,{how:"checkerboard",facet:e,spacing_mm:t,turn_deg:i,rim:this.spreadRim});if(this.spread.facet!==e||this.spread.spacing!==t||this.spread.turn!==i)return;this.spread={...this.spread,count:n.supports.length,supports:n.supports},ct.view.markPlaces(n.places)}catch(n){this.spread={...this.spread,count:null,supports:[]},ct.view.markPlaces([]),this.problem=n.message}},get spreadText(){return`Stand ${this.spread.count} pillar${this.spread.count===1?"":"s"}`},async takeSpread(){let e=this.spread.supports;this.endTool(),await this.editMany(e,`${e.length} pillars on a checkerboard`)},refusedKey:()=>`refused supports ${dt.state.mesh_url.split("?")[0]}`,get refusedPlaces(){return JSON.parse(localStorage.getItem(this.refusedKey())??"[]")},async propose(){let e=this.state.key;this.dropProposal(),this.problem="";try{let t={...de.raw(this.asked),refused:this.refusedPlaces},i=await zt(dt.urls.propose,t);if(i.work){this.proposalWork=i.work;let n=await hi(i.work,s=>this.proposalWork=s);if(this.proposalWork=null,this.state.key!==e)return;if(n.state!=="done"){n.state!=="cancelled"&&(this.problem=n.error);return}i=await zt(dt.urls.propose,t)}if(this.state.key!==e||!i.supports)return;this.leftOut=[],this.proposal={...i,of:e},this.drawSupports()}catch(t){this.problem=t.message}finally{this.proposalWork=null}},async cancelProposing(){this.proposalWork&&await Li(this.proposalWork).catch(e=>this.problem=e.message)},dropProposal(){this.proposal=null,this.leftOut=[]},closeProposal(){this.dropProposal(),this.drawSupports()},isWanted(e){return this.keptProposed.some(t=>t.key===e)},toggleWanted(e){this.leftOut=this.leftOut.includes(e)?this.leftOut.filter(t=>t!==e):[...this.leftOut,e],this.drawSupports()},lookAtProposed(e){let t=this.proposal.drawn.find(i=>i.key===e);t&&ct.view.showPlace(t.contact_mm,!0)},lookAtPlace(e){ct.view.showPlace(de.raw(e),!0)},async takeProposal(){let e=this.proposal.drawn.filter(i=>this.leftOut.includes(i.key)).map(i=>i.contact_mm);e.length&&localStorage.setItem(this.refusedKey(),JSON.stringify([...this.refusedPlaces,...e].slice(-500)));let t=this.keptProposed.map(({support:i,ends:n,size:s,why:r,key:o})=>({name:o,support:i,ends:n,size:s,why:r}));this.dropProposal(),await this.editMany(de.raw(t),`${t.length} proposed supports`)&&this.chooseNone()},proposedText(e){let t=this.proposal?.drawn.find(i=>i.key===e);return t?`${t.label}, z = ${t.contact_mm[2].toFixed(1)} mm, ${ae(t.volume_mm3)} mm\xB3`:""},async loadHeld(){if(this.activity!=="prop"||!this.findings.ready)return;let{key:e,held_url:t}=this.state;if(!this.state.pillars.length)return this.strength={},ct.view.setWash(null);try{let[i,n]=await Promise.all([He(t),Ne(dt.urls.strength)]);if(this.state.key!==e||this.activity!=="prop")return;ct.view.setWash(new Float32Array(i,4)),this.strength=n,this.showBent()}catch(i){this.refused(i)}}}});Ti("compare",{goesTo:e=>e.compareUrl});Ti("hand-over",{enter:e=>e.offer||e.loadOffer(),shown:e=>e.loadOffer(),data:{offer:null,checkSign:({ok:e,is_doubtful:t})=>e?t?"!":"\u2713":"\u2717",checkColour:({ok:e,is_doubtful:t})=>e?t?"text-ochre":"text-teal":"text-brick",get openText(){let{open:e}=this.offer;return`Not so yet: ${e.map(t=>t.toLowerCase()).join(", ")}. The files are as it stands now.`},async loadOffer(){let e=this.state.key;try{let t=await Ne(dt.urls.checks);this.state.key===e&&(this.offer=t)}catch(t){this.problem=t.message}}}});function m0(e,t,i){let n=null,s=null;e.addEventListener("pointerdown",a=>{a.button===0&&(n=[a.clientX,a.clientY],s=i.grab(a.clientX,a.clientY,a),s&&(t.controls.enabled=!1,e.setPointerCapture(a.pointerId)))},{capture:!0}),e.addEventListener("pointermove",a=>{if(!s||!n||!o(a))return;if(s.follow)return s.follow(a);let l=t.pick(a.clientX,a.clientY);l&&i.dragging(s,l)});let r=a=>{let l=n,c=s,h=l&&o(a);n=s=null,t.controls.enabled=!0,l&&(c?.drop&&(h||!c.clicks)?c.drop():c&&h?i.dropped(c,t.pick(a.clientX,a.clientY)):h||i.clicked(a.clientX,a.clientY,c,a))};e.addEventListener("pointerup",r),e.addEventListener("pointercancel",()=>{s?.drop?s.drop():s&&i.dropped(s,null),n=s=null,t.controls.enabled=!0});let o=a=>Math.hypot(a.clientX-n[0],a.clientY-n[1])>4}var g0={type:"change"},Od={type:"start"},y0={type:"end"},_h=new on,_0=new Be,nA=Math.cos(70*hd.DEG2RAD),Ze=new C,Pi=2*Math.PI,se={NONE:-1,ROTATE:0,DOLLY:1,PAN:2,TOUCH_ROTATE:3,TOUCH_PAN:4,TOUCH_DOLLY_PAN:5,TOUCH_DOLLY_ROTATE:6},Dd=1e-6,yh=class extends ra{constructor(t,i=null){super(t,i),this.state=se.NONE,this.target=new C,this.cursor=new C,this.minDistance=0,this.maxDistance=1/0,this.minZoom=0,this.maxZoom=1/0,this.minTargetRadius=0,this.maxTargetRadius=1/0,this.minPolarAngle=0,this.maxPolarAngle=Math.PI,this.minAzimuthAngle=-1/0,this.maxAzimuthAngle=1/0,this.enableDamping=!1,this.dampingFactor=.05,this.enableZoom=!0,this.zoomSpeed=1,this.enableRotate=!0,this.rotateSpeed=1,this.keyRotateSpeed=1,this.enablePan=!0,this.panSpeed=1,this.screenSpacePanning=!0,this.keyPanSpeed=7,this.zoomToCursor=!1,this.autoRotate=!1,this.autoRotateSpeed=2,this.keys={LEFT:"ArrowLeft",UP:"ArrowUp",RIGHT:"ArrowRight",BOTTOM:"ArrowDown"},this.mouseButtons={LEFT:hs.ROTATE,MIDDLE:hs.DOLLY,RIGHT:hs.PAN},this.touches={ONE:us.ROTATE,TWO:us.DOLLY_PAN},this.target0=this.target.clone(),this.position0=this.object.position.clone(),this.zoom0=this.object.zoom,this._cursorStyle="auto",this._domElementKeyEvents=null,this._lastPosition=new C,this._lastQuaternion=new ni,this._lastTargetPosition=new C,this._quat=new ni().setFromUnitVectors(t.up,new C(0,1,0)),this._quatInverse=this._quat.clone().invert(),this._spherical=new Fr,this._sphericalDelta=new Fr,this._scale=1,this._panOffset=new C,this._rotateStart=new Tt,this._rotateEnd=new Tt,this._rotateDelta=new Tt,this._panStart=new Tt,this._panEnd=new Tt,this._panDelta=new Tt,this._dollyStart=new Tt,this._dollyEnd=new Tt,this._dollyDelta=new Tt,this._dollyDirection=new C,this._mouse=new Tt,this._performCursorZoom=!1,this._pointers=[],this._pointerPositions={},this._controlActive=!1,this._onPointerMove=rA.bind(this),this._onPointerDown=sA.bind(this),this._onPointerUp=oA.bind(this),this._onContextMenu=dA.bind(this),this._onMouseWheel=cA.bind(this),this._onKeyDown=hA.bind(this),this._onTouchStart=uA.bind(this),this._onTouchMove=fA.bind(this),this._onMouseDown=aA.bind(this),this._onMouseMove=lA.bind(this),this._interceptControlDown=pA.bind(this),this._interceptControlUp=mA.bind(this),this.domElement!==null&&this.connect(this.domElement),this.update()}set cursorStyle(t){this._cursorStyle=t,t==="grab"?this.domElement.style.cursor="grab":this.domElement.style.cursor="auto"}get cursorStyle(){return this._cursorStyle}connect(t){super.connect(t),this.domElement.addEventListener("pointerdown",this._onPointerDown),this.domElement.addEventListener("pointercancel",this._onPointerUp),this.domElement.addEventListener("contextmenu",this._onContextMenu),this.domElement.addEventListener("wheel",this._onMouseWheel,{passive:!1}),this.domElement.ownerDocument.addEventListener("keydown",this._interceptControlDown,{passive:!0,capture:!0}),this.domElement.style.touchAction="none"}disconnect(){this.state=se.NONE,this.domElement.removeEventListener("pointerdown",this._onPointerDown),this.domElement.ownerDocument.removeEventListener("pointermove",this._onPointerMove),this.domElement.ownerDocument.removeEventListener("pointerup",this._onPointerUp),this.domElement.removeEventListener("pointercancel",this._onPointerUp),this.domElement.removeEventListener("wheel",this._onMouseWheel),this.domElement.removeEventListener("contextmenu",this._onContextMenu),this.stopListenToKeyEvents(),this.domElement.ownerDocument.removeEventListener("keydown",this._interceptControlDown,{capture:!0}),this.domElement.ownerDocument.removeEventListener("keyup",this._interceptControlUp,{capture:!0}),this._controlActive=!1,this._pointers.length=0,this._pointerPositions={},this.domElement.style.touchAction="",this.domElement.style.cursor="auto"}dispose(){this.disconnect()}getPolarAngle(){return this._spherical.phi}getAzimuthalAngle(){return this._spherical.theta}getDistance(){return this.object.position.distanceTo(this.target)}listenToKeyEvents(t){t.addEventListener("keydown",this._onKeyDown),this._domElementKeyEvents=t}stopListenToKeyEvents(){this._domElementKeyEvents!==null&&(this._domElementKeyEvents.removeEventListener("keydown",this._onKeyDown),this._domElementKeyEvents=null)}saveState(){this.target0.copy(this.target),this.position0.copy(this.object.position),this.zoom0=this.object.zoom}reset(){this.target.copy(this.target0),this.object.position.copy(this.position0),this.object.zoom=this.zoom0,this.object.updateProjectionMatrix(),this.dispatchEvent(g0),this.update(),this.state=se.NONE}pan(t,i){this._pan(t,i),this.update()}dollyIn(t){this._dollyIn(t),this.update()}dollyOut(t){this._dollyOut(t),this.update()}rotateLeft(t){this._rotateLeft(t),this.update()}rotateUp(t){this._rotateUp(t),this.update()}update(t=null){let i=this.object.position;Ze.copy(i).sub(this.target),Ze.applyQuaternion(this._quat),this._spherical.setFromVector3(Ze),this.autoRotate&&this.state===se.NONE&&this._rotateLeft(this._getAutoRotationAngle(t)),this.enableDamping?(this._spherical.theta+=this._sphericalDelta.theta*this.dampingFactor,this._spherical.phi+=this._sphericalDelta.phi*this.dampingFactor):(this._spherical.theta+=this._sphericalDelta.theta,this._spherical.phi+=this._sphericalDelta.phi);let n=this.minAzimuthAngle,s=this.maxAzimuthAngle;isFinite(n)&&isFinite(s)&&(n<-Math.PI?n+=Pi:n>Math.PI&&(n-=Pi),s<-Math.PI?s+=Pi:s>Math.PI&&(s-=Pi),n<=s?this._spherical.theta=Math.max(n,Math.min(s,this._spherical.theta)):this._spherical.theta=this._spherical.theta>(n+s)/2?Math.max(n,this._spherical.theta):Math.min(s,this._spherical.theta)),this._spherical.phi=Math.max(this.minPolarAngle,Math.min(this.maxPolarAngle,this._spherical.phi)),this._spherical.makeSafe(),this.enableDamping===!0?this.target.addScaledVector(this._panOffset,this.dampingFactor):this.target.add(this._panOffset),this.target.sub(this.cursor),this.target.clampLength(this.minTargetRadius,this.maxTargetRadius),this.target.add(this.cursor);let r=!1;if(this.zoomToCursor&&this._performCursorZoom||this.object.isOrthographicCamera)this._spherical.radius=this._clampDistance(this._spherical.radius);else{let o=this._spherical.radius;this._spherical.radius=this._clampDistance(this._spherical.radius*this._scale),r=o!=this._spherical.radius}if(Ze.setFromSpherical(this._spherical),Ze.applyQuaternion(this._quatInverse),i.copy(this.target).add(Ze),this.object.lookAt(this.target),this.enableDamping===!0?(this._sphericalDelta.theta*=1-this.dampingFactor,this._sphericalDelta.phi*=1-this.dampingFactor,this._panOffset.multiplyScalar(1-this.dampingFactor)):(this._sphericalDelta.set(0,0,0),this._panOffset.set(0,0,0)),this.zoomToCursor&&this._performCursorZoom){let o=null;if(this.object.isPerspectiveCamera){let a=Ze.length();o=this._clampDistance(a*this._scale);let l=a-o;this.object.position.addScaledVector(this._dollyDirection,l),this.object.updateMatrixWorld(),r=!!l}else if(this.object.isOrthographicCamera){let a=new C(this._mouse.x,this._mouse.y,0);a.unproject(this.object);let l=this.object.zoom;this.object.zoom=Math.max(this.minZoom,Math.min(this.maxZoom,this.object.zoom/this._scale)),this.object.updateProjectionMatrix(),r=l!==this.object.zoom;let c=new C(this._mouse.x,this._mouse.y,0);c.unproject(this.object),this.object.position.sub(c).add(a),this.object.updateMatrixWorld(),o=Ze.length()}else console.warn("WARNING: OrbitControls.js encountered an unknown camera type - zoom to cursor disabled."),this.zoomToCursor=!1;o!==null&&(this.screenSpacePanning?this.target.set(0,0,-1).transformDirection(this.object.matrix).multiplyScalar(o).add(this.object.position):(_h.origin.copy(this.object.position),_h.direction.set(0,0,-1).transformDirection(this.object.matrix),Math.abs(this.object.up.dot(_h.direction))<nA?this.object.lookAt(this.target):(_0.setFromNormalAndCoplanarPoint(this.object.up,this.target),_h.intersectPlane(_0,this.target))))}else if(this.object.isOrthographicCamera){let o=this.object.zoom;this.object.zoom=Math.max(this.minZoom,Math.min(this.maxZoom,this.object.zoom/this._scale)),o!==this.object.zoom&&(this.object.updateProjectionMatrix(),r=!0)}return this._scale=1,this._performCursorZoom=!1,r||this._lastPosition.distanceToSquared(this.object.position)>Dd||8*(1-this._lastQuaternion.dot(this.object.quaternion))>Dd||this._lastTargetPosition.distanceToSquared(this.target)>Dd?(this.dispatchEvent(g0),this._lastPosition.copy(this.object.position),this._lastQuaternion.copy(this.object.quaternion),this._lastTargetPosition.copy(this.target),!0):!1}_getAutoRotationAngle(t){return t!==null?Pi/60*this.autoRotateSpeed*t:Pi/60/60*this.autoRotateSpeed}_getZoomScale(t){let i=Math.abs(t*.01);return Math.pow(.95,this.zoomSpeed*i)}_rotateLeft(t){this._sphericalDelta.theta-=t}_rotateUp(t){this._sphericalDelta.phi-=t}_panLeft(t,i){Ze.setFromMatrixColumn(i,0),Ze.multiplyScalar(-t),this._panOffset.add(Ze)}_panUp(t,i){this.screenSpacePanning===!0?Ze.setFromMatrixColumn(i,1):(Ze.setFromMatrixColumn(i,0),Ze.crossVectors(this.object.up,Ze)),Ze.multiplyScalar(t),this._panOffset.add(Ze)}_pan(t,i){let n=this.domElement;if(this.object.isPerspectiveCamera){let s=this.object.position;Ze.copy(s).sub(this.target);let r=Ze.length();r*=Math.tan(this.object.fov/2*Math.PI/180),this._panLeft(2*t*r/n.clientHeight,this.object.matrix),this._panUp(2*i*r/n.clientHeight,this.object.matrix)}else this.object.isOrthographicCamera?(this._panLeft(t*(this.object.right-this.object.left)/this.object.zoom/n.clientWidth,this.object.matrix),this._panUp(i*(this.object.top-this.object.bottom)/this.object.zoom/n.clientHeight,this.object.matrix)):(console.warn("WARNING: OrbitControls.js encountered an unknown camera type - pan disabled."),this.enablePan=!1)}_dollyOut(t){this.object.isPerspectiveCamera||this.object.isOrthographicCamera?this._scale/=t:(console.warn("WARNING: OrbitControls.js encountered an unknown camera type - dolly/zoom disabled."),this.enableZoom=!1)}_dollyIn(t){this.object.isPerspectiveCamera||this.object.isOrthographicCamera?this._scale*=t:(console.warn("WARNING: OrbitControls.js encountered an unknown camera type - dolly/zoom disabled."),this.enableZoom=!1)}_updateZoomParameters(t,i){if(!this.zoomToCursor)return;this._performCursorZoom=!0;let n=this.domElement.getBoundingClientRect(),s=t-n.left,r=i-n.top,o=n.width,a=n.height;this._mouse.x=s/o*2-1,this._mouse.y=-(r/a)*2+1,this._dollyDirection.set(this._mouse.x,this._mouse.y,1).unproject(this.object).sub(this.object.position).normalize()}_clampDistance(t){return Math.max(this.minDistance,Math.min(this.maxDistance,t))}_handleMouseDownRotate(t){this._rotateStart.set(t.clientX,t.clientY)}_handleMouseDownDolly(t){this._updateZoomParameters(t.clientX,t.clientY),this._dollyStart.set(t.clientX,t.clientY)}_handleMouseDownPan(t){this._panStart.set(t.clientX,t.clientY)}_handleMouseMoveRotate(t){this._rotateEnd.set(t.clientX,t.clientY),this._rotateDelta.subVectors(this._rotateEnd,this._rotateStart).multiplyScalar(this.rotateSpeed);let i=this.domElement;this._rotateLeft(Pi*this._rotateDelta.x/i.clientHeight),this._rotateUp(Pi*this._rotateDelta.y/i.clientHeight),this._rotateStart.copy(this._rotateEnd),this.update()}_handleMouseMoveDolly(t){this._dollyEnd.set(t.clientX,t.clientY),this._dollyDelta.subVectors(this._dollyEnd,this._dollyStart),this._dollyDelta.y>0?this._dollyOut(this._getZoomScale(this._dollyDelta.y)):this._dollyDelta.y<0&&this._dollyIn(this._getZoomScale(this._dollyDelta.y)),this._dollyStart.copy(this._dollyEnd),this.zoomToCursor&&(this._performCursorZoom=!0,this._dollyDirection.set(this._mouse.x,this._mouse.y,1).unproject(this.object).sub(this.object.position).normalize()),this.update()}_handleMouseMovePan(t){this._panEnd.set(t.clientX,t.clientY),this._panDelta.subVectors(this._panEnd,this._panStart).multiplyScalar(this.panSpeed),this._pan(this._panDelta.x,this._panDelta.y),this._panStart.copy(this._panEnd),this.update()}_handleMouseWheel(t){this._updateZoomParameters(t.clientX,t.clientY),t.deltaY<0?this._dollyIn(this._getZoomScale(t.deltaY)):t.deltaY>0&&this._dollyOut(this._getZoomScale(t.deltaY)),this.update()}_handleKeyDown(t){let i=!1;switch(t.code){case this.keys.UP:t.ctrlKey||t.metaKey||t.shiftKey?this.enableRotate&&this._rotateUp(Pi*this.keyRotateSpeed/this.domElement.clientHeight):this.enablePan&&this._pan(0,this.keyPanSpeed),i=!0;break;case this.keys.BOTTOM:t.ctrlKey||t.metaKey||t.shiftKey?this.enableRotate&&this._rotateUp(-Pi*this.keyRotateSpeed/this.domElement.clientHeight):this.enablePan&&this._pan(0,-this.keyPanSpeed),i=!0;break;case this.keys.LEFT:t.ctrlKey||t.metaKey||t.shiftKey?this.enableRotate&&this._rotateLeft(Pi*this.keyRotateSpeed/this.domElement.clientHeight):this.enablePan&&this._pan(this.keyPanSpeed,0),i=!0;break;case this.keys.RIGHT:t.ctrlKey||t.metaKey||t.shiftKey?this.enableRotate&&this._rotateLeft(-Pi*this.keyRotateSpeed/this.domElement.clientHeight):this.enablePan&&this._pan(-this.keyPanSpeed,0),i=!0;break}i&&(t.preventDefault(),this.update())}_handleTouchStartRotate(t){if(this._pointers.length===1)this._rotateStart.set(t.pageX,t.pageY);else{let i=this._getSecondPointerPosition(t),n=.5*(t.pageX+i.x),s=.5*(t.pageY+i.y);this._rotateStart.set(n,s)}}_handleTouchStartPan(t){if(this._pointers.length===1)this._panStart.set(t.pageX,t.pageY);else{let i=this._getSecondPointerPosition(t),n=.5*(t.pageX+i.x),s=.5*(t.pageY+i.y);this._panStart.set(n,s)}}_handleTouchStartDolly(t){let i=this._getSecondPointerPosition(t),n=t.pageX-i.x,s=t.pageY-i.y,r=Math.sqrt(n*n+s*s);this._dollyStart.set(0,r)}_handleTouchStartDollyPan(t){this.enableZoom&&this._handleTouchStartDolly(t),this.enablePan&&this._handleTouchStartPan(t)}_handleTouchStartDollyRotate(t){this.enableZoom&&this._handleTouchStartDolly(t),this.enableRotate&&this._handleTouchStartRotate(t)}_handleTouchMoveRotate(t){if(this._pointers.length==1)this._rotateEnd.set(t.pageX,t.pageY);else{let n=this._getSecondPointerPosition(t),s=.5*(t.pageX+n.x),r=.5*(t.pageY+n.y);this._rotateEnd.set(s,r)}this._rotateDelta.subVectors(this._rotateEnd,this._rotateStart).multiplyScalar(this.rotateSpeed);let i=this.domElement;this._rotateLeft(Pi*this._rotateDelta.x/i.clientHeight),this._rotateUp(Pi*this._rotateDelta.y/i.clientHeight),this._rotateStart.copy(this._rotateEnd)}_handleTouchMovePan(t){if(this._pointers.length===1)this._panEnd.set(t.pageX,t.pageY);else{let i=this._getSecondPointerPosition(t),n=.5*(t.pageX+i.x),s=.5*(t.pageY+i.y);this._panEnd.set(n,s)}this._panDelta.subVectors(this._panEnd,this._panStart).multiplyScalar(this.panSpeed),this._pan(this._panDelta.x,this._panDelta.y),this._panStart.copy(this._panEnd)}_handleTouchMoveDolly(t){let i=this._getSecondPointerPosition(t),n=t.pageX-i.x,s=t.pageY-i.y,r=Math.sqrt(n*n+s*s);this._dollyEnd.set(0,r),this._dollyDelta.set(0,Math.pow(this._dollyEnd.y/this._dollyStart.y,this.zoomSpeed)),this._dollyOut(this._dollyDelta.y),this._dollyStart.copy(this._dollyEnd);let o=(t.pageX+i.x)*.5,a=(t.pageY+i.y)*.5;this._updateZoomParameters(o,a)}_handleTouchMoveDollyPan(t){this.enableZoom&&this._handleTouchMoveDolly(t),this.enablePan&&this._handleTouchMovePan(t)}_handleTouchMoveDollyRotate(t){this.enableZoom&&this._handleTouchMoveDolly(t),this.enableRotate&&this._handleTouchMoveRotate(t)}_addPointer(t){this._pointers.push(t.pointerId)}_removePointer(t){delete this._pointerPositions[t.pointerId];for(let i=0;i<this._pointers.length;i++)if(this._pointers[i]==t.pointerId){this._pointers.splice(i,1);return}}_isTrackingPointer(t){for(let i=0;i<this._pointers.length;i++)if(this._pointers[i]==t.pointerId)return!0;return!1}_trackPointer(t){let i=this._pointerPositions[t.pointerId];i===void 0&&(i=new Tt,this._pointerPositions[t.pointerId]=i),i.set(t.pageX,t.pageY)}_getSecondPointerPosition(t){let i=t.pointerId===this._pointers[0]?this._pointers[1]:this._pointers[0];return this._pointerPositions[i]}_customWheelEvent(t){let i=t.deltaMode,n={clientX:t.clientX,clientY:t.clientY,deltaY:t.deltaY};switch(i){case 1:n.deltaY*=16;break;case 2:n.deltaY*=100;break}return t.ctrlKey&&!this._controlActive&&(n.deltaY*=10),n}};function sA(e){this.enabled!==!1&&(this._pointers.length===0&&(this.domElement.setPointerCapture(e.pointerId),this.domElement.ownerDocument.addEventListener("pointermove",this._onPointerMove),this.domElement.ownerDocument.addEventListener("pointerup",this._onPointerUp)),!this._isTrackingPointer(e)&&(this._addPointer(e),e.pointerType==="touch"?this._onTouchStart(e):this._onMouseDown(e),this._cursorStyle==="grab"&&(this.domElement.style.cursor="grabbing")))}function rA(e){this.enabled!==!1&&(e.pointerType==="touch"?this._onTouchMove(e):this._onMouseMove(e))}function oA(e){switch(this._removePointer(e),this._pointers.length){case 0:this.domElement.releasePointerCapture(e.pointerId),this.domElement.ownerDocument.removeEventListener("pointermove",this._onPointerMove),this.domElement.ownerDocument.removeEventListener("pointerup",this._onPointerUp),this.dispatchEvent(y0),this.state=se.NONE,this._cursorStyle==="grab"&&(this.domElement.style.cursor="grab");break;case 1:let t=this._pointers[0],i=this._pointerPositions[t];this._onTouchStart({pointerId:t,pageX:i.x,pageY:i.y});break}}function aA(e){let t;switch(e.button){case 0:t=this.mouseButtons.LEFT;break;case 1:t=this.mouseButtons.MIDDLE;break;case 2:t=this.mouseButtons.RIGHT;break;default:t=-1}switch(t){case hs.DOLLY:if(this.enableZoom===!1)return;this._handleMouseDownDolly(e),this.state=se.DOLLY;break;case hs.ROTATE:if(e.ctrlKey||e.metaKey||e.shiftKey){if(this.enablePan===!1)return;this._handleMouseDownPan(e),this.state=se.PAN}else{if(this.enableRotate===!1)return;this._handleMouseDownRotate(e),this.state=se.ROTATE}break;case hs.PAN:if(e.ctrlKey||e.metaKey||e.shiftKey){if(this.enableRotate===!1)return;this._handleMouseDownRotate(e),this.state=se.ROTATE}else{if(this.enablePan===!1)return;this._handleMouseDownPan(e),this.state=se.PAN}break;default:this.state=se.NONE}this.state!==se.NONE&&this.dispatchEvent(Od)}function lA(e){switch(this.state){case se.ROTATE:if(this.enableRotate===!1)return;this._handleMouseMoveRotate(e);break;case se.DOLLY:if(this.enableZoom===!1)return;this._handleMouseMoveDolly(e);break;case se.PAN:if(this.enablePan===!1)return;this._handleMouseMovePan(e);break}}function cA(e){this.enabled===!1||this.enableZoom===!1||this.state!==se.NONE||(e.preventDefault(),this.dispatchEvent(Od),this._handleMouseWheel(this._customWheelEvent(e)),this.dispatchEvent(y0))}function hA(e){this.enabled!==!1&&this._handleKeyDown(e)}function uA(e){switch(this._trackPointer(e),this._pointers.length){case 1:switch(this.touches.ONE){case us.ROTATE:if(this.enableRotate===!1){this.state=se.NONE;break}this._handleTouchStartRotate(e),this.state=se.TOUCH_ROTATE;break;case us.PAN:if(this.enablePan===!1){this.state=se.NONE;break}this._handleTouchStartPan(e),this.state=se.TOUCH_PAN;break;default:this.state=se.NONE}break;case 2:switch(this.touches.TWO){case us.DOLLY_PAN:if(this.enableZoom===!1&&this.enablePan===!1)return;this._handleTouchStartDollyPan(e),this.state=se.TOUCH_DOLLY_PAN;break;case us.DOLLY_ROTATE:if(this.enableZoom===!1&&this.enableRotate===!1)return;this._handleTouchStartDollyRotate(e),this.state=se.TOUCH_DOLLY_ROTATE;break;default:this.state=se.NONE}break;default:this.state=se.NONE}this.state!==se.NONE&&this.dispatchEvent(Od)}function fA(e){switch(this._trackPointer(e),this.state){case se.TOUCH_ROTATE:if(this.enableRotate===!1)return;this._handleTouchMoveRotate(e),this.update();break;case se.TOUCH_PAN:if(this.enablePan===!1)return;this._handleTouchMovePan(e),this.update();break;case se.TOUCH_DOLLY_PAN:if(this.enableZoom===!1&&this.enablePan===!1)return;this._handleTouchMoveDollyPan(e),this.update();break;case se.TOUCH_DOLLY_ROTATE:if(this.enableZoom===!1&&this.enableRotate===!1)return;this._handleTouchMoveDollyRotate(e),this.update();break;default:this.state=se.NONE}}function dA(e){this.enabled!==!1&&e.preventDefault()}function pA(e){e.key==="Control"&&(this._controlActive=!0,this.domElement.ownerDocument.addEventListener("keyup",this._interceptControlUp,{passive:!0,capture:!0}))}function mA(e){e.key==="Control"&&(this._controlActive=!1,this.domElement.ownerDocument.removeEventListener("keyup",this._interceptControlUp,{passive:!0,capture:!0}))}var gA=e=>Array.from({length:e.length/3},(t,i)=>e.slice(3*i,3*i+3)),xh=class{group=new ee;update(t){if(ce(this.group),!t)return;for(let n of t.lines)this.group.add(qn(gA(n),ne("accent")));let i=qn([[-1,-1],[1,-1],[1,1],[-1,1]].map(([n,s])=>[n*t.reach,s*t.reach,0]),ne("accent"));i.quaternion.setFromUnitVectors(new C(0,0,1),new C(...t.normal)),i.position.set(...t.origin),this.group.add(i)}dispose(){ce(this.group)}};var vh=class{group=new ee;update(t){ce(this.group);for(let{line_mm:i}of t)i.length&&this.group.add(r0(i,ne("accent"),{depthTest:!1}),ya(i.length>2?i.slice(0,1):i,ne("accent"),6))}dispose(){ce(this.group)}};var eo=Math.pow(2,-24),ba=Symbol("SKIP_GENERATION"),Sh={strategy:0,maxDepth:40,targetLeafSize:10,useSharedArrayBuffer:!1,setBoundingBox:!0,onProgress:null,indirect:!1,verbose:!0,range:null,[ba]:!1};function ve(e,t,i){return i.min.x=t[e],i.min.y=t[e+1],i.min.z=t[e+2],i.max.x=t[e+3],i.max.y=t[e+4],i.max.z=t[e+5],i}function Ta(e){let t=-1,i=-1/0;for(let n=0;n<3;n++){let s=e[n+3]-e[n];s>i&&(i=s,t=n)}return t}function Ud(e,t,i){for(let n=0;n<3;n++){let s=t[e+2*n],r=t[e+2*n+1],o=s-r,a=s+r;o<i[n]&&(i[n]=o),a>i[n+3]&&(i[n+3]=a)}}function wh(e){let t=e[3]-e[0],i=e[4]-e[1],n=e[5]-e[2];return 2*(t*i+i*n+n*t)}function jt(e,t){return t[e+15]===65535}function he(e,t){return t[e+6]}function ge(e,t){return t[e+14]}function re(e){return e+8}function oe(e,t){let i=t[e+6];return e+i*8}function io(e,t){return t[e+7]}function Mh(e,t,i,n,s){let r=1/0,o=1/0,a=1/0,l=-1/0,c=-1/0,h=-1/0,u=1/0,f=1/0,d=1/0,g=-1/0,x=-1/0,p=-1/0,m=e.offset||0;for(let y=(t-m)*6,S=(t+i-m)*6;y<S;y+=6){let v=e[y+0],w=e[y+1],T=v-w,_=v+w;T<r&&(r=T),_>l&&(l=_),v<u&&(u=v),v>g&&(g=v);let M=e[y+2],L=e[y+3],A=M-L,R=M+L;A<o&&(o=A),R>c&&(c=R),M<f&&(f=M),M>x&&(x=M);let P=e[y+4],O=e[y+5],N=P-O,B=P+O;N<a&&(a=N),B>h&&(h=B),P<d&&(d=P),P>p&&(p=P)}n[0]=r,n[1]=o,n[2]=a,n[3]=l,n[4]=c,n[5]=h,s[0]=u,s[1]=f,s[2]=d,s[3]=g,s[4]=x,s[5]=p}var An=8,Bd=8,Fd=new Int32Array(An),En=new Float32Array(An*6),no=new Float32Array(An*6),un=new Float32Array(6),bh=new Float32Array(6),ps=new Int32Array(Bd),v0=new Float32Array(Bd*6);function xA(e,t,i,n){for(let s=0;s<3;s++){let r=t[e+2*s],o=t[e+2*s+1],a=r-o,l=r+o;a<i[n+s]&&(i[n+s]=a),l>i[n+s+3]&&(i[n+s+3]=l)}}function S0(e,t){let i=e[t+3]-e[t],n=e[t+4]-e[t+1],s=e[t+5]-e[t+2];return 2*(i*n+n*s+s*i)}function w0(e,t,i,n,s,r){let o=-1,a=0;if(r===0)o=Ta(t),o!==-1&&(a=(t[o]+t[o+3])/2);else if(r===1)o=Ta(e),o!==-1&&(a=vA(i,n,s,o));else if(r===2){let l=wh(e),c=1.25*s,h=i.offset||0,u=(n-h)*6,f=(n+s-h)*6;for(let d=0;d<3;d++){let g=t[d],m=(t[d+3]-g)/An;if(s<Bd){for(let y=0;y<s;y++){let S=u+y*6,v=i[S+2*d],w=y;for(;w>0&&i[ps[w-1]+2*d]>v;)ps[w]=ps[w-1],w--;ps[w]=S}for(let y=0;y<3;y++)un[y]=1/0,un[y+3]=-1/0,bh[y]=1/0,bh[y+3]=-1/0;for(let y=s-1;y>=0;y--)Ud(ps[y],i,bh),v0.set(bh,y*6);for(let y=0;y<s-1;y++){Ud(ps[y],i,un);let S=i[ps[y+1]+2*d];if(i[ps[y]+2*d]===S)continue;let v=y+1,w=s-v,T=wh(un)/l,_=S0(v0,v*6)/l,M=1+1.25*(T*v+_*w);M<c&&(o=d,c=M,a=S)}}else{for(let v=0;v<An;v++){Fd[v]=0;for(let w=0;w<3;w++)En[v*6+w]=1/0,En[v*6+w+3]=-1/0}for(let v=u;v<f;v+=6){let _=~~((i[v+2*d]-g)/m);_>=An&&(_=An-1),Fd[_]++,xA(v,i,En,_*6)}let y=(An-1)*6;for(let v=0;v<6;v++)no[y+v]=En[y+v];for(let v=An-2;v>=0;v--){let w=v*6,T=w+6;for(let _=0;_<3;_++)no[w+_]=Math.min(En[w+_],no[T+_]),no[w+_+3]=Math.max(En[w+_+3],no[T+_+3])}let S=0;for(let v=0;v<An-1;v++){let w=v*6,T=Fd[v];if(T!==0)for(let R=0;R<3;R++)S===0?(un[R]=En[w+R],un[R+3]=En[w+R+3]):(un[R]=Math.min(un[R],En[w+R]),un[R+3]=Math.max(un[R+3],En[w+R+3]));S+=T;let _=0,M=0;S!==0&&(_=wh(un)/l);let L=s-S;L!==0&&(M=S0(no,w+6)/l);let A=1+1.25*(_*S+M*L);A<c&&(o=d,c=A,a=g+m+v*m)}}}}else console.warn(`BVH: Invalid build strategy value ${r} used.`);return{axis:o,pos:a}}function vA(e,t,i,n){let s=0,r=e.offset;for(let o=t,a=t+i;o<a;o++)s+=e[(o-r)*6+n*2];return s/i}function M0(e,t,i,n,s,r){let o=n,a=n+s-1,l=r.pos,c=r.axis*2,h=i.offset||0;for(;;){for(;o<=a&&i[(o-h)*6+c]<l;)o++;for(;o<=a&&i[(a-h)*6+c]>=l;)a--;if(o<a){for(let u=0;u<t;u++){let f=e[o*t+u];e[o*t+u]=e[a*t+u],e[a*t+u]=f}for(let u=0;u<6;u++){let f=o-h,d=a-h,g=i[f*6+u];i[f*6+u]=i[d*6+u],i[d*6+u]=g}o++,a--}else return o}}var SA=Math.pow(2,32),so=new Float32Array(6),Th=new Float32Array(6);function wA(e,t,i,n,s,r){let{maxDepth:o,verbose:a,targetLeafSize:l,_strictLeafSize:c=1/0,strategy:h,onProgress:u,useSharedArrayBuffer:f=!1}=s,d=e.primitiveBuffer,g=e.primitiveBufferStride,x=f?SharedArrayBuffer:ArrayBuffer,p=new x(32*Math.max(1,2*Math.ceil(n)-1)),m=new Float32Array(p),y=new Uint32Array(p),S=new Uint16Array(p),v=0,w=!1;return Mh(t,i,n,so,Th),M(i,n,0),p.slice(0,v*32);function T(L){u&&u((L-r.offset)/r.count)}function _(L,A,R){let P=L*2;y[L+6]=A,S[P+14]=R,S[P+15]=65535,T(A+R)}function M(L,A,R){let P=v++,O=P*8;m.set(so,O),!w&&R>=o&&(w=!0,a&&console.warn(`BVH: Max depth of ${o} reached when generating BVH. Consider increasing maxDepth.`));let N=A>c;if(A<=l&&!N||R>=o){_(O,L,A);return}let B=w0(so,Th,t,L,A,h),V=B.axis===-1?-1:M0(d,g,t,L,A,B);if(B.axis===-1||V===L||V===L+A){if(!N){_(O,L,A);return}B.axis=Math.max(0,Ta(so)),V=L+Math.max(1,Math.floor(A/2))}y[O+7]=B.axis;let G=V-L;Mh(t,L,G,so,Th),M(L,G,R+1);let tt=v-P;if(tt>SA)throw new Error("MeshBVH: Cannot store relative child node offset greater than 32 bits.");y[O+6]=tt;let X=A-G;Mh(t,V,X,so,Th),M(V,X,R+1)}}function b0(e,t){let i=e.getRootRanges(t.range),n=i[0],s=i[i.length-1],r={offset:n.offset,count:s.offset+s.count-n.offset},o=new Float32Array(6*r.count);o.offset=r.offset,e.computePrimitiveBounds(r.offset,r.count,o),e._roots=i.map(a=>wA(e,o,a.offset,a.count,t,r))}var ms=class{constructor(t){this._getNewPrimitive=t,this._primitives=[]}getPrimitive(){let t=this._primitives;return t.length===0?this._getNewPrimitive():t.pop()}releasePrimitive(t){this._primitives.push(t)}};var kd=class{constructor(){this.float32Array=null,this.uint16Array=null,this.uint32Array=null;let t=[],i=null;this.setBuffer=n=>{i&&t.push(i),i=n,this.float32Array=new Float32Array(n),this.uint16Array=new Uint16Array(n),this.uint32Array=new Uint32Array(n)},this.clearBuffer=()=>{i=null,this.float32Array=null,this.uint16Array=null,this.uint32Array=null,t.length!==0&&this.setBuffer(t.pop())}}},$t=new kd;var gs,oo,ro=[],Eh=new ms(()=>new Ce);function T0(e,t,i,n,s,r){gs=Eh.getPrimitive(),oo=Eh.getPrimitive(),ro.push(gs,oo),$t.setBuffer(e._roots[t]);let o=zd(0,e.geometry,i,n,s,r);$t.clearBuffer(),Eh.releasePrimitive(gs),Eh.releasePrimitive(oo),ro.pop(),ro.pop();let a=ro.length;return a>0&&(oo=ro[a-1],gs=ro[a-2]),o}function zd(e,t,i,n,s=null,r=0,o=0){let{float32Array:a,uint16Array:l,uint32Array:c}=$t,h=e*2;if(jt(h,l)){let f=he(e,c),d=ge(h,l);return ve(e,a,gs),n(f,d,!1,o,r+e/8,gs)}else{let A=function(P){let{uint16Array:O,uint32Array:N}=$t,B=P*2;for(;!jt(B,O);)P=re(P),B=P*2;return he(P,N)},R=function(P){let{uint16Array:O,uint32Array:N}=$t,B=P*2;for(;!jt(B,O);)P=oe(P,N),B=P*2;return he(P,N)+ge(B,O)},f=re(e),d=oe(e,c),g=f,x=d,p,m,y,S;if(s&&(y=gs,S=oo,ve(g,a,y),ve(x,a,S),p=s(y),m=s(S),m<p)){g=d,x=f;let P=p;p=m,m=P,y=S}y||(y=gs,ve(g,a,y));let v=jt(g*2,l),w=i(y,v,p,o+1,r+g/8),T;if(w===2){let P=A(g),N=R(g)-P;T=n(P,N,!0,o+1,r+g/8,y)}else T=w&&zd(g,t,i,n,s,r,o+1);if(T)return!0;S=oo,ve(x,a,S);let _=jt(x*2,l),M=i(S,_,m,o+1,r+x/8),L;if(M===2){let P=A(x),N=R(x)-P;L=n(P,N,!0,o+1,r+x/8,S)}else L=M&&zd(x,t,i,n,s,r,o+1);return!!L}}var Ea=new $t.constructor,Ah=new $t.constructor,_s=new ms(()=>new Ce),ao=new Ce,lo=new Ce,Vd=new Ce,Gd=new Ce,Wd=!1;function E0(e,t,i,n){if(Wd)throw new Error("MeshBVH: Recursive calls to bvhcast not supported.");Wd=!0;let s=e._roots,r=t._roots,o,a=0,l=0,c=new Vt().copy(i).invert();for(let h=0,u=s.length;h<u;h++){Ea.setBuffer(s[h]),l=0;let f=_s.getPrimitive();ve(0,Ea.float32Array,f),f.applyMatrix4(c);for(let d=0,g=r.length;d<g&&(Ah.setBuffer(r[d]),o=fn(0,0,i,c,n,a,l,0,0,f),Ah.clearBuffer(),l+=r[d].byteLength/32,!o);d++);if(_s.releasePrimitive(f),Ea.clearBuffer(),a+=s[h].byteLength/32,o)break}return Wd=!1,o}function fn(e,t,i,n,s,r=0,o=0,a=0,l=0,c=null,h=!1){let u,f;h?(u=Ah,f=Ea):(u=Ea,f=Ah);let d=u.float32Array,g=u.uint32Array,x=u.uint16Array,p=f.float32Array,m=f.uint32Array,y=f.uint16Array,S=e*2,v=t*2,w=jt(S,x),T=jt(v,y),_=!1;if(T&&w)h?_=s(he(t,m),ge(t*2,y),he(e,g),ge(e*2,x),l,o+t/8,a,r+e/8):_=s(he(e,g),ge(e*2,x),he(t,m),ge(t*2,y),a,r+e/8,l,o+t/8);else if(T){let M=_s.getPrimitive();ve(t,p,M),M.applyMatrix4(i);let L=re(e),A=oe(e,g);ve(L,d,ao),ve(A,d,lo);let R=M.intersectsBox(ao),P=M.intersectsBox(lo);_=R&&fn(t,L,n,i,s,o,r,l,a+1,M,!h)||P&&fn(t,A,n,i,s,o,r,l,a+1,M,!h),_s.releasePrimitive(M)}else{let M=re(t),L=oe(t,m);ve(M,p,Vd),ve(L,p,Gd);let A=c.intersectsBox(Vd),R=c.intersectsBox(Gd);if(A&&R)_=fn(e,M,i,n,s,r,o,a,l+1,c,h)||fn(e,L,i,n,s,r,o,a,l+1,c,h);else if(A)if(w)_=fn(e,M,i,n,s,r,o,a,l+1,c,h);else{let P=_s.getPrimitive();P.copy(Vd).applyMatrix4(i);let O=re(e),N=oe(e,g);ve(O,d,ao),ve(N,d,lo);let B=P.intersectsBox(ao),V=P.intersectsBox(lo);_=B&&fn(M,O,n,i,s,o,r,l,a+1,P,!h)||V&&fn(M,N,n,i,s,o,r,l,a+1,P,!h),_s.releasePrimitive(P)}else if(R)if(w)_=fn(e,L,i,n,s,r,o,a,l+1,c,h);else{let P=_s.getPrimitive();P.copy(Gd).applyMatrix4(i);let O=re(e),N=oe(e,g);ve(O,d,ao),ve(N,d,lo);let B=P.intersectsBox(ao),V=P.intersectsBox(lo);_=B&&fn(L,O,n,i,s,o,r,l,a+1,P,!h)||V&&fn(L,N,n,i,s,o,r,l,a+1,P,!h),_s.releasePrimitive(P)}}return _}var Rh=new class{constructor(){let e=null,t=null,i=null,n=!1;this.root=null,this.buffer=null,this.uint32Array=null,this.uint16Array=null,this.setBVH=(r,o)=>{if(n)throw new Error("BVHTraversalHelper: cannot call setBVH during an active traversal.");this.root=o,this.buffer=e=r._roots[o],this.uint16Array=i=new Uint16Array(e),this.uint32Array=t=new Uint32Array(e)},this.reset=()=>{this.root=null,this.buffer=e=null,this.uint16Array=i=null,this.uint32Array=t=null},this.getRangeStart=r=>{let o=r*2;for(;!jt(o,i);)r=re(r),o=r*2;return he(r,t)},this.getRangeEnd=r=>{let o=r*2;for(;!jt(o,i);)r=oe(r,t),o=r*2;return he(r,t)+ge(o,i)};let s=(r,o,a)=>{let l=o*2,c=jt(l,i);if(!r(a,c,o)&&!c){let u=re(o),f=oe(o,t);s(r,u,a+1),s(r,f,a+1)}};this.traverseBuffer=r=>{if(n)throw new Error("BVHTraversalHelper: cannot start a traversal during an active traversal.");n=!0;try{s(r,0,0)}finally{n=!1}},this.traverse=r=>{this.traverseBuffer((o,a,l)=>{if(a){let c=l*2,h=t[l+6],u=i[c+14];return r(o,a,new Float32Array(e,l*4,6),h,u)}else{let c=io(l,t);return r(o,a,new Float32Array(e,l*4,6),c)}})}}};var A0=new Ce,co=new Float32Array(6),Ch=class{constructor(){this._roots=null,this.primitiveBuffer=null,this.primitiveBufferStride=null}init(t){t={...Sh,...t},"maxLeafSize"in t&&(console.warn('BVH: "maxLeafSize" option has been deprecated. Use "targetLeafSize", instead.'),t={...t,targetLeafSize:t.maxLeafSize}),b0(this,t)}getRootRanges(){throw new Error("BVH: getRootRanges() not implemented")}writePrimitiveBounds(){throw new Error("BVH: writePrimitiveBounds() not implemented")}writePrimitiveRangeBounds(t,i,n,s){let r=1/0,o=1/0,a=1/0,l=-1/0,c=-1/0,h=-1/0;for(let u=t,f=t+i;u<f;u++){this.writePrimitiveBounds(u,co,0);let[d,g,x,p,m,y]=co;d<r&&(r=d),p>l&&(l=p),g<o&&(o=g),m>c&&(c=m),x<a&&(a=x),y>h&&(h=y)}return n[s+0]=r,n[s+1]=o,n[s+2]=a,n[s+3]=l,n[s+4]=c,n[s+5]=h,n}computePrimitiveBounds(t,i,n){let s=n.offset||0;for(let r=t,o=t+i;r<o;r++){this.writePrimitiveBounds(r,co,0);let[a,l,c,h,u,f]=co,d=(a+h)/2,g=(l+u)/2,x=(c+f)/2,p=(h-a)/2,m=(u-l)/2,y=(f-c)/2,S=(r-s)*6;n[S+0]=d,n[S+1]=p+(Math.abs(d)+p)*eo,n[S+2]=g,n[S+3]=m+(Math.abs(g)+m)*eo,n[S+4]=x,n[S+5]=y+(Math.abs(x)+y)*eo}return n}shiftPrimitiveOffsets(t){let i=this._indirectBuffer;if(i)for(let n=0,s=i.length;n<s;n++)i[n]+=t;else{let n=this._roots;for(let s=0;s<n.length;s++){let r=n[s],o=new Uint32Array(r),a=new Uint16Array(r),l=r.byteLength/32;for(let c=0;c<l;c++){let h=8*c,u=2*h;jt(u,a)&&(o[h+6]+=t)}}}}traverse(t,i=0){Rh.setBVH(this,i),Rh.traverse(t),Rh.reset()}refit(){let t=this._roots;for(let i=0,n=t.length;i<n;i++){let s=t[i],r=new Uint32Array(s),o=new Uint16Array(s),a=new Float32Array(s),l=s.byteLength/32;for(let c=l-1;c>=0;c--){let h=c*8,u=h*2;if(jt(u,o)){let d=he(h,r),g=ge(u,o);this.writePrimitiveRangeBounds(d,g,co,0),a.set(co,h)}else{let d=re(h),g=oe(h,r);for(let x=0;x<3;x++){let p=a[d+x],m=a[d+x+3],y=a[g+x],S=a[g+x+3];a[h+x]=p<y?p:y,a[h+x+3]=m>S?m:S}}}}}getBoundingBox(t){return t.makeEmpty(),this._roots.forEach(n=>{ve(0,new Float32Array(n),A0),t.union(A0)}),t}shapecast(t){let{boundsTraverseOrder:i,intersectsBounds:n,intersectsRange:s,intersectsPrimitive:r,scratchPrimitive:o,iterate:a}=t;if(s&&r){let u=s;s=(f,d,g,x,p)=>u(f,d,g,x,p)?!0:a(f,d,this,r,g,x,o)}else s||(r?s=(u,f,d,g)=>a(u,f,this,r,d,g,o):s=(u,f,d)=>d);let l=!1,c=0,h=this._roots;for(let u=0,f=h.length;u<f;u++){let d=h[u];if(l=T0(this,u,n,s,i,c),l)break;c+=d.byteLength/32}return l}bvhcast(t,i,n){let{intersectsRanges:s}=n;return E0(this,t,i,s)}};function R0(){return typeof SharedArrayBuffer<"u"}function Xd(e){return e.index?e.index.count:e.attributes.position.count}function ys(e){return Xd(e)/3}function bA(e,t=ArrayBuffer){return e>65535?new Uint32Array(new t(4*e)):new Uint16Array(new t(2*e))}function C0(e,t){if(!e.index){let i=e.attributes.position.count,n=t.useSharedArrayBuffer?SharedArrayBuffer:ArrayBuffer,s=bA(i,n);e.setIndex(new Zt(s,1));for(let r=0;r<i;r++)s[r]=r}}function TA(e,t,i){let n=Xd(e)/i,s=t||e.drawRange,r=s.start/i,o=(s.start+s.count)/i,a=Math.max(0,r),l=Math.min(n,o)-a;return{offset:Math.floor(a),count:Math.floor(l)}}function EA(e,t){return e.groups.map(i=>({offset:i.start/t,count:i.count/t}))}function $d(e,t,i){let n=TA(e,t,i),s=EA(e,i);if(!s.length)return[n];let r=[],o=n.offset,a=n.offset+n.count,l=Xd(e)/i,c=[];for(let f of s){let{offset:d,count:g}=f,x=d,p=isFinite(g)?g:l-d,m=d+p;x<a&&m>o&&(c.push({pos:Math.max(o,x),isStart:!0}),c.push({pos:Math.min(a,m),isStart:!1}))}c.sort((f,d)=>f.pos!==d.pos?f.pos-d.pos:f.type==="end"?-1:1);let h=0,u=null;for(let f of c){let d=f.pos;h!==0&&d!==u&&r.push({offset:u,count:d-u}),h+=f.isStart?1:-1,u=d}return r}function AA(e,t){let i=e[e.length-1],n=i.offset+i.count>2**16,s=e.reduce((c,h)=>c+h.count,0),r=n?4:2,o=t?new SharedArrayBuffer(s*r):new ArrayBuffer(s*r),a=n?new Uint32Array(o):new Uint16Array(o),l=0;for(let c=0;c<e.length;c++){let{offset:h,count:u}=e[c];for(let f=0;f<u;f++)a[l+f]=h+f;l+=u}return a}var Ph=class extends Ch{get indirect(){return!!this._indirectBuffer}get primitiveStride(){return null}get primitiveBufferStride(){return this.indirect?1:this.primitiveStride}set primitiveBufferStride(t){}get primitiveBuffer(){return this.indirect?this._indirectBuffer:this.geometry.index.array}set primitiveBuffer(t){}constructor(t,i={}){if(t.isBufferGeometry){if(t.index&&t.index.isInterleavedBufferAttribute)throw new Error("BVH: InterleavedBufferAttribute is not supported for the index attribute.")}else throw new Error("BVH: Only BufferGeometries are supported.");if(i.useSharedArrayBuffer&&!R0())throw new Error("BVH: SharedArrayBuffer is not available.");super(),this.geometry=t,this.resolvePrimitiveIndex=i.indirect?n=>this._indirectBuffer[n]:n=>n,this.primitiveBuffer=null,this.primitiveBufferStride=null,this._indirectBuffer=null,i={...Sh,...i},i[ba]||this.init(i)}init(t){let{geometry:i,primitiveStride:n}=this;if(t.indirect){let s=$d(i,t.range,n),r=AA(s,t.useSharedArrayBuffer);this._indirectBuffer=r}else C0(i,t);super.init(t),!i.boundingBox&&t.setBoundingBox&&(i.boundingBox=this.getBoundingBox(new Ce))}getRootRanges(t){return this.indirect?[{offset:0,count:this._indirectBuffer.length}]:$d(this.geometry,t,this.primitiveStride)}raycastObject3D(){throw new Error("BVH: raycastObject3D() not implemented")}};var zi=class{constructor(){this.min=1/0,this.max=-1/0}setFromPointsField(t,i){let n=1/0,s=-1/0;for(let r=0,o=t.length;r<o;r++){let l=t[r][i];n=l<n?l:n,s=l>s?l:s}this.min=n,this.max=s}setFromPoints(t,i){let n=1/0,s=-1/0;for(let r=0,o=i.length;r<o;r++){let a=i[r],l=t.dot(a);n=l<n?l:n,s=l>s?l:s}this.min=n,this.max=s}isSeparated(t){return this.min>t.max||t.min>this.max}};zi.prototype.setFromBox=(function(){let e=new C;return function(i,n){let s=n.min,r=n.max,o=1/0,a=-1/0;for(let l=0;l<=1;l++)for(let c=0;c<=1;c++)for(let h=0;h<=1;h++){e.x=s.x*l+r.x*(1-l),e.y=s.y*c+r.y*(1-c),e.z=s.z*h+r.z*(1-h);let u=i.dot(e);o=Math.min(u,o),a=Math.max(u,a)}this.min=o,this.max=a}})();var RA=(function(){let e=new C,t=new C,i=new C;return function(s,r,o){let a=s.start,l=e,c=r.start,h=t;i.subVectors(a,c),e.subVectors(s.end,s.start),t.subVectors(r.end,r.start);let u=i.dot(h),f=h.dot(l),d=h.dot(h),g=i.dot(l),p=l.dot(l)*d-f*f,m,y;p!==0?m=(u*f-g*d)/p:m=0,y=(u+m*f)/d,o.x=m,o.y=y}})(),Aa=(function(){let e=new Tt,t=new C,i=new C;return function(s,r,o,a){RA(s,r,e);let l=e.x,c=e.y;if(l>=0&&l<=1&&c>=0&&c<=1){s.at(l,o),r.at(c,a);return}else if(l>=0&&l<=1){c<0?r.at(0,a):r.at(1,a),s.closestPointToPoint(a,!0,o);return}else if(c>=0&&c<=1){l<0?s.at(0,o):s.at(1,o),r.closestPointToPoint(o,!0,a);return}else{let h;l<0?h=s.start:h=s.end;let u;c<0?u=r.start:u=r.end;let f=t,d=i;if(s.closestPointToPoint(u,!0,t),r.closestPointToPoint(h,!0,i),f.distanceToSquared(u)<=d.distanceToSquared(h)){o.copy(f),a.copy(u);return}else{o.copy(h),a.copy(d);return}}}})(),P0=(function(){let e=new C,t=new C,i=new Be,n=new Si;return function(r,o){let{radius:a,center:l}=r,{a:c,b:h,c:u}=o;if(n.start=c,n.end=h,n.closestPointToPoint(l,!0,e).distanceTo(l)<=a||(n.start=c,n.end=u,n.closestPointToPoint(l,!0,e).distanceTo(l)<=a)||(n.start=h,n.end=u,n.closestPointToPoint(l,!0,e).distanceTo(l)<=a))return!0;let x=o.getPlane(i);if(Math.abs(x.distanceToPoint(l))<=a){let m=x.projectPoint(l,t);if(o.containsPoint(m))return!0}return!1}})();var CA=["x","y","z"],Kn=1e-15,I0=Kn*Kn;function Ji(e){return Math.abs(e)<Kn}var ai=class extends $e{constructor(...t){super(...t),this.isExtendedTriangle=!0,this.satAxes=new Array(4).fill().map(()=>new C),this.satBounds=new Array(4).fill().map(()=>new zi),this.points=[this.a,this.b,this.c],this.plane=new Be,this.isDegenerateIntoSegment=!1,this.isDegenerateIntoPoint=!1,this.degenerateSegment=new Si,this.needsUpdate=!0}intersectsSphere(t){return P0(t,this)}update(){let t=this.a,i=this.b,n=this.c,s=this.points,r=this.satAxes,o=this.satBounds,a=r[0],l=o[0];this.getNormal(a),l.setFromPoints(a,s);let c=r[1],h=o[1];c.subVectors(t,i),h.setFromPoints(c,s);let u=r[2],f=o[2];u.subVectors(i,n),f.setFromPoints(u,s);let d=r[3],g=o[3];d.subVectors(n,t),g.setFromPoints(d,s);let x=c.length(),p=u.length(),m=d.length();this.isDegenerateIntoPoint=!1,this.isDegenerateIntoSegment=!1,x<Kn?p<Kn||m<Kn?this.isDegenerateIntoPoint=!0:(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(t),this.degenerateSegment.end.copy(n)):p<Kn?m<Kn?this.isDegenerateIntoPoint=!0:(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(i),this.degenerateSegment.end.copy(t)):m<Kn&&(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(n),this.degenerateSegment.end.copy(i)),this.plane.setFromNormalAndCoplanarPoint(a,t),this.needsUpdate=!1}};ai.prototype.closestPointToSegment=(function(){let e=new C,t=new C,i=new Si;return function(s,r=null,o=null){this.needsUpdate&&this.update();let{start:a,end:l}=s,c=this.points,h,u=1/0,f=this.plane.distanceToPoint(a),d=this.plane.distanceToPoint(l);if(f*d<0&&this.plane.intersectLine(s,e)!==null&&this.containsPoint(e))return r&&r.copy(e),o&&o.copy(e),0;for(let g=0;g<3;g++){let x=(g+1)%3;i.start.copy(c[g]),i.end.copy(c[x]),Aa(i,s,e,t),h=e.distanceToSquared(t),h<u&&(u=h,r&&r.copy(e),o&&o.copy(t))}return this.closestPointToPoint(a,e),h=a.distanceToSquared(e),h<u&&(u=h,r&&r.copy(e),o&&o.copy(a)),this.closestPointToPoint(l,e),h=l.distanceToSquared(e),h<u&&(u=h,r&&r.copy(e),o&&o.copy(l)),Math.sqrt(u)}})();ai.prototype.intersectsTriangle=(function(){let e=new ai,t=new zi,i=new zi,n=new C,s=new C,r=new C,o=new C,a=new Si,l=new Si,c=new C,h=new Tt,u=new Tt;function f(S,v,w,T){let _=n;!S.isDegenerateIntoPoint&&!S.isDegenerateIntoSegment?_.copy(S.plane.normal):_.copy(v.plane.normal);let M=S.satBounds,L=S.satAxes;for(let P=1;P<4;P++){let O=M[P],N=L[P];if(t.setFromPoints(N,v.points),O.isSeparated(t)||(o.copy(_).cross(N),t.setFromPoints(o,S.points),i.setFromPoints(o,v.points),t.isSeparated(i)))return!1}let A=v.satBounds,R=v.satAxes;for(let P=1;P<4;P++){let O=A[P],N=R[P];if(t.setFromPoints(N,S.points),O.isSeparated(t)||(o.crossVectors(_,N),t.setFromPoints(o,S.points),i.setFromPoints(o,v.points),t.isSeparated(i)))return!1}return w&&(T||console.warn("ExtendedTriangle.intersectsTriangle: Triangles are coplanar which does not support an output edge. Setting edge to 0, 0, 0."),w.start.set(0,0,0),w.end.set(0,0,0)),!0}function d(S,v,w,T,_,M,L,A,R,P,O){let N=L/(L-A);P.x=T+(_-T)*N,O.start.subVectors(v,S).multiplyScalar(N).add(S),N=L/(L-R),P.y=T+(M-T)*N,O.end.subVectors(w,S).multiplyScalar(N).add(S)}function g(S,v,w,T,_,M,L,A,R,P,O){if(_>0)d(S.c,S.a,S.b,T,v,w,R,L,A,P,O);else if(M>0)d(S.b,S.a,S.c,w,v,T,A,L,R,P,O);else if(A*R>0||L!=0)d(S.a,S.b,S.c,v,w,T,L,A,R,P,O);else if(A!=0)d(S.b,S.a,S.c,w,v,T,A,L,R,P,O);else if(R!=0)d(S.c,S.a,S.b,T,v,w,R,L,A,P,O);else return!0;return!1}function x(S,v,w,T){let _=v.degenerateSegment,M=S.plane.distanceToPoint(_.start),L=S.plane.distanceToPoint(_.end);return Ji(M)?Ji(L)?f(S,v,w,T):(w&&(w.start.copy(_.start),w.end.copy(_.start)),S.containsPoint(_.start)):Ji(L)?(w&&(w.start.copy(_.end),w.end.copy(_.end)),S.containsPoint(_.end)):S.plane.intersectLine(_,n)!=null?(w&&(w.start.copy(n),w.end.copy(n)),S.containsPoint(n)):!1}function p(S,v,w){let T=v.a;return Ji(S.plane.distanceToPoint(T))&&S.containsPoint(T)?(w&&(w.start.copy(T),w.end.copy(T)),!0):!1}function m(S,v,w){let T=S.degenerateSegment,_=v.a;return T.closestPointToPoint(_,!0,n),_.distanceToSquared(n)<I0?(w&&(w.start.copy(_),w.end.copy(_)),!0):!1}function y(S,v,w,T){if(S.isDegenerateIntoSegment)if(v.isDegenerateIntoSegment){let _=S.degenerateSegment,M=v.degenerateSegment,L=s,A=r;_.delta(L),M.delta(A);let R=n.subVectors(M.start,_.start),P=L.x*A.y-L.y*A.x;if(Ji(P))return!1;let O=(R.x*A.y-R.y*A.x)/P,N=-(L.x*R.y-L.y*R.x)/P;if(O<0||O>1||N<0||N>1)return!1;let B=_.start.z+L.z*O,V=M.start.z+A.z*N;return Ji(B-V)?(w&&(w.start.copy(_.start).addScaledVector(L,O),w.end.copy(_.start).addScaledVector(L,O)),!0):!1}else return v.isDegenerateIntoPoint?m(S,v,w):x(v,S,w,T);else{if(S.isDegenerateIntoPoint)return v.isDegenerateIntoPoint?v.a.distanceToSquared(S.a)<I0?(w&&(w.start.copy(S.a),w.end.copy(S.a)),!0):!1:v.isDegenerateIntoSegment?m(v,S,w):p(v,S,w);if(v.isDegenerateIntoPoint)return p(S,v,w);if(v.isDegenerateIntoSegment)return x(S,v,w,T)}}return function(v,w=null,T=!1){this.needsUpdate&&this.update(),v.isExtendedTriangle?v.needsUpdate&&v.update():(e.copy(v),e.update(),v=e);let _=y(this,v,w,T);if(_!==void 0)return _;let M=this.plane,L=v.plane,A=L.distanceToPoint(this.a),R=L.distanceToPoint(this.b),P=L.distanceToPoint(this.c);Ji(A)&&(A=0),Ji(R)&&(R=0),Ji(P)&&(P=0);let O=A*R,N=A*P;if(O>0&&N>0)return!1;let B=M.distanceToPoint(v.a),V=M.distanceToPoint(v.b),G=M.distanceToPoint(v.c);Ji(B)&&(B=0),Ji(V)&&(V=0),Ji(G)&&(G=0);let tt=B*V,X=B*G;if(tt>0&&X>0)return!1;s.copy(M.normal),r.copy(L.normal);let j=s.cross(r),Q=0,vt=Math.abs(j.x),Dt=Math.abs(j.y);Dt>vt&&(vt=Dt,Q=1),Math.abs(j.z)>vt&&(Q=2);let ht=CA[Q],xt=this.a[ht],Rt=this.b[ht],mt=this.c[ht],Ot=v.a[ht],De=v.b[ht],Pt=v.c[ht];if(g(this,xt,Rt,mt,O,N,A,R,P,h,a))return f(this,v,w,T);if(g(v,Ot,De,Pt,tt,X,B,V,G,u,l))return f(this,v,w,T);if(h.y<h.x){let Qt=h.y;h.y=h.x,h.x=Qt,c.copy(a.start),a.start.copy(a.end),a.end.copy(c)}if(u.y<u.x){let Qt=u.y;u.y=u.x,u.x=Qt,c.copy(l.start),l.start.copy(l.end),l.end.copy(c)}return h.y<u.x||u.y<h.x?!1:(w&&(u.x>h.x?w.start.copy(l.start):w.start.copy(a.start),u.y<h.y?w.end.copy(l.end):w.end.copy(a.end)),!0)}})();ai.prototype.distanceToPoint=(function(){let e=new C;return function(i){return this.closestPointToPoint(i,e),i.distanceTo(e)}})();ai.prototype.distanceToTriangle=(function(){let e=new C,t=new C,i=["a","b","c"],n=new Si,s=new Si;return function(o,a=null,l=null){let c=a||l?n:null;if(this.intersectsTriangle(o,c,!0))return(a||l)&&(a&&c.getCenter(a),l&&c.getCenter(l)),0;let h=1/0;for(let u=0;u<3;u++){let f,d=i[u],g=o[d];this.closestPointToPoint(g,e),f=g.distanceToSquared(e),f<h&&(h=f,a&&a.copy(e),l&&l.copy(g));let x=this[d];o.closestPointToPoint(x,e),f=x.distanceToSquared(e),f<h&&(h=f,a&&a.copy(x),l&&l.copy(e))}for(let u=0;u<3;u++){let f=i[u],d=i[(u+1)%3];n.set(this[f],this[d]);for(let g=0;g<3;g++){let x=i[g],p=i[(g+1)%3];s.set(o[x],o[p]),Aa(n,s,e,t);let m=e.distanceToSquared(t);m<h&&(h=m,a&&a.copy(e),l&&l.copy(t))}}return Math.sqrt(h)}})();var Oe=class{constructor(t,i,n){this.isOrientedBox=!0,this.min=new C,this.max=new C,this.matrix=new Vt,this.invMatrix=new Vt,this.points=new Array(8).fill().map(()=>new C),this.satAxes=new Array(3).fill().map(()=>new C),this.satBounds=new Array(3).fill().map(()=>new zi),this.alignedSatBounds=new Array(3).fill().map(()=>new zi),this.needsUpdate=!1,t&&this.min.copy(t),i&&this.max.copy(i),n&&this.matrix.copy(n)}set(t,i,n){this.min.copy(t),this.max.copy(i),this.matrix.copy(n),this.needsUpdate=!0}copy(t){this.min.copy(t.min),this.max.copy(t.max),this.matrix.copy(t.matrix),this.needsUpdate=!0}};Oe.prototype.update=(function(){return function(){let t=this.matrix,i=this.min,n=this.max,s=this.points;for(let c=0;c<=1;c++)for(let h=0;h<=1;h++)for(let u=0;u<=1;u++){let f=1*c|2*h|4*u,d=s[f];d.x=c?n.x:i.x,d.y=h?n.y:i.y,d.z=u?n.z:i.z,d.applyMatrix4(t)}let r=this.satBounds,o=this.satAxes,a=s[0];for(let c=0;c<3;c++){let h=o[c],u=r[c],f=1<<c,d=s[f];h.subVectors(a,d),u.setFromPoints(h,s)}let l=this.alignedSatBounds;l[0].setFromPointsField(s,"x"),l[1].setFromPointsField(s,"y"),l[2].setFromPointsField(s,"z"),this.invMatrix.copy(this.matrix).invert(),this.needsUpdate=!1}})();Oe.prototype.intersectsBox=(function(){let e=new zi;return function(i){this.needsUpdate&&this.update();let n=i.min,s=i.max,r=this.satBounds,o=this.satAxes,a=this.alignedSatBounds;if(e.min=n.x,e.max=s.x,a[0].isSeparated(e)||(e.min=n.y,e.max=s.y,a[1].isSeparated(e))||(e.min=n.z,e.max=s.z,a[2].isSeparated(e)))return!1;for(let l=0;l<3;l++){let c=o[l],h=r[l];if(e.setFromBox(c,i),h.isSeparated(e))return!1}return!0}})();Oe.prototype.intersectsTriangle=(function(){let e=new ai,t=new Array(3),i=new zi,n=new zi,s=new C;return function(o){this.needsUpdate&&this.update(),o.isExtendedTriangle?o.needsUpdate&&o.update():(e.copy(o),e.update(),o=e);let a=this.satBounds,l=this.satAxes;t[0]=o.a,t[1]=o.b,t[2]=o.c;for(let f=0;f<3;f++){let d=a[f],g=l[f];if(i.setFromPoints(g,t),d.isSeparated(i))return!1}let c=o.satBounds,h=o.satAxes,u=this.points;for(let f=0;f<3;f++){let d=c[f],g=h[f];if(i.setFromPoints(g,u),d.isSeparated(i))return!1}for(let f=0;f<3;f++){let d=l[f];for(let g=0;g<4;g++){let x=h[g];if(s.crossVectors(d,x),i.setFromPoints(s,t),n.setFromPoints(s,u),i.isSeparated(n))return!1}}return!0}})();Oe.prototype.closestPointToPoint=(function(){return function(t,i){return this.needsUpdate&&this.update(),i.copy(t).applyMatrix4(this.invMatrix).clamp(this.min,this.max).applyMatrix4(this.matrix),i}})();Oe.prototype.distanceToPoint=(function(){let e=new C;return function(i){return this.closestPointToPoint(i,e),i.distanceTo(e)}})();Oe.prototype.distanceToBox=(function(){let e=["x","y","z"],t=new Array(12).fill().map(()=>new Si),i=new Array(12).fill().map(()=>new Si),n=new C,s=new C;return function(o,a=0,l=null,c=null){if(this.needsUpdate&&this.update(),this.intersectsBox(o))return(l||c)&&(o.getCenter(s),this.closestPointToPoint(s,n),o.closestPointToPoint(n,s),l&&l.copy(n),c&&c.copy(s)),0;let h=a*a,u=o.min,f=o.max,d=this.points,g=1/0;for(let p=0;p<8;p++){let m=d[p];s.copy(m).clamp(u,f);let y=m.distanceToSquared(s);if(y<g&&(g=y,l&&l.copy(m),c&&c.copy(s),y<h))return Math.sqrt(y)}let x=0;for(let p=0;p<3;p++)for(let m=0;m<=1;m++)for(let y=0;y<=1;y++){let S=(p+1)%3,v=(p+2)%3,w=m<<S|y<<v,T=1<<p|m<<S|y<<v,_=d[w],M=d[T];t[x].set(_,M);let A=e[p],R=e[S],P=e[v],O=i[x],N=O.start,B=O.end;N[A]=u[A],N[R]=m?u[R]:f[R],N[P]=y?u[P]:f[P],B[A]=f[A],B[R]=m?u[R]:f[R],B[P]=y?u[P]:f[P],x++}for(let p=0;p<=1;p++)for(let m=0;m<=1;m++)for(let y=0;y<=1;y++){s.x=p?f.x:u.x,s.y=m?f.y:u.y,s.z=y?f.z:u.z,this.closestPointToPoint(s,n);let S=s.distanceToSquared(n);if(S<g&&(g=S,l&&l.copy(n),c&&c.copy(s),S<h))return Math.sqrt(S)}for(let p=0;p<12;p++){let m=t[p];for(let y=0;y<12;y++){let S=i[y];Aa(m,S,n,s);let v=n.distanceToSquared(s);if(v<g&&(g=v,l&&l.copy(n),c&&c.copy(s),v<h))return Math.sqrt(v)}}return Math.sqrt(g)}})();var qd=class extends ms{constructor(){super(()=>new ai)}},wi=new qd;var Ra=new C,Yd=new C;function L0(e,t,i={},n=0,s=1/0){let r=n*n,o=s*s,a=1/0,l=null;if(e.shapecast({boundsTraverseOrder:h=>(Ra.copy(t).clamp(h.min,h.max),Ra.distanceToSquared(t)),intersectsBounds:(h,u,f)=>f<a&&f<o,intersectsTriangle:(h,u)=>{h.closestPointToPoint(t,Ra);let f=t.distanceToSquared(Ra);return f<a&&(Yd.copy(Ra),a=f,l=u),f<r}}),a===1/0)return null;let c=Math.sqrt(a);return i.point?i.point.copy(Yd):i.point=Yd.clone(),i.distance=c,i.faceIndex=l,i}var Ih=parseInt("187")>=169,PA=parseInt("187")<=161,tr=new C,er=new C,ir=new C,Lh=new Tt,Nh=new Tt,Dh=new Tt,N0=new C,D0=new C,O0=new C,Ca=new C;function IA(e,t,i,n,s,r,o,a){let l;if(r===oi?l=e.intersectTriangle(n,i,t,!0,s):l=e.intersectTriangle(t,i,n,r!==Te,s),l===null)return null;let c=e.origin.distanceTo(s);return c<o||c>a?null:{distance:c,point:s.clone()}}function U0(e,t,i,n,s,r,o,a,l,c,h){tr.fromBufferAttribute(t,r),er.fromBufferAttribute(t,o),ir.fromBufferAttribute(t,a);let u=IA(e,tr,er,ir,Ca,l,c,h);if(u){if(n){Lh.fromBufferAttribute(n,r),Nh.fromBufferAttribute(n,o),Dh.fromBufferAttribute(n,a),u.uv=new Tt;let d=$e.getInterpolation(Ca,tr,er,ir,Lh,Nh,Dh,u.uv);Ih||(u.uv=d)}if(s){Lh.fromBufferAttribute(s,r),Nh.fromBufferAttribute(s,o),Dh.fromBufferAttribute(s,a),u.uv1=new Tt;let d=$e.getInterpolation(Ca,tr,er,ir,Lh,Nh,Dh,u.uv1);Ih||(u.uv1=d),PA&&(u.uv2=u.uv1)}if(i){N0.fromBufferAttribute(i,r),D0.fromBufferAttribute(i,o),O0.fromBufferAttribute(i,a),u.normal=new C;let d=$e.getInterpolation(Ca,tr,er,ir,N0,D0,O0,u.normal);u.normal.dot(e.direction)>0&&u.normal.multiplyScalar(-1),Ih||(u.normal=d)}let f={a:r,b:o,c:a,normal:new C,materialIndex:0};if($e.getNormal(tr,er,ir,f.normal),u.face=f,u.faceIndex=r,Ih){let d=new C;$e.getBarycoord(Ca,tr,er,ir,d),u.barycoord=d}}return u}function F0(e){return e&&e.isMaterial?e.side:e}function ho(e,t,i,n,s,r,o){let a=n*3,l=a+0,c=a+1,h=a+2,{index:u,groups:f}=e;e.index&&(l=u.getX(l),c=u.getX(c),h=u.getX(h));let{position:d,normal:g,uv:x,uv1:p}=e.attributes;if(Array.isArray(t)){let m=n*3;for(let y=0,S=f.length;y<S;y++){let{start:v,count:w,materialIndex:T}=f[y];if(m>=v&&m<v+w){let _=F0(t[T]),M=U0(i,d,g,x,p,l,c,h,_,r,o);if(M)if(M.faceIndex=n,M.face.materialIndex=T,s)s.push(M);else return M}}}else{let m=F0(t),y=U0(i,d,g,x,p,l,c,h,m,r,o);if(y)if(y.faceIndex=n,y.face.materialIndex=0,s)s.push(y);else return y}return null}function Se(e,t,i,n){let s=e.a,r=e.b,o=e.c,a=t,l=t+1,c=t+2;i&&(a=i.getX(a),l=i.getX(l),c=i.getX(c)),s.x=n.getX(a),s.y=n.getY(a),s.z=n.getZ(a),r.x=n.getX(l),r.y=n.getY(l),r.z=n.getZ(l),o.x=n.getX(c),o.y=n.getY(c),o.z=n.getZ(c)}function B0(e,t,i,n,s,r,o,a){let{geometry:l,_indirectBuffer:c}=e;for(let h=n,u=n+s;h<u;h++)ho(l,t,i,h,r,o,a)}function k0(e,t,i,n,s,r,o){let{geometry:a,_indirectBuffer:l}=e,c=1/0,h=null;for(let u=n,f=n+s;u<f;u++){let d;d=ho(a,t,i,u,null,r,o),d&&d.distance<c&&(h=d,c=d.distance)}return h}function z0(e,t,i,n,s,r,o){let{geometry:a}=i,{index:l}=a,c=a.attributes.position;for(let h=e,u=t+e;h<u;h++){let f;if(f=h,Se(o,f*3,l,c),o.needsUpdate=!0,n(o,f,s,r))return!0}return!1}function H0(e,t=null){t&&Array.isArray(t)&&(t=new Set(t));let i=e.geometry,n=i.index?i.index.array:null,s=i.attributes.position,r,o,a,l,c=0,h=e._roots;for(let f=0,d=h.length;f<d;f++)r=h[f],o=new Uint32Array(r),a=new Uint16Array(r),l=new Float32Array(r),u(0,c),c+=r.byteLength;function u(f,d,g=!1){let x=f*2;if(jt(x,a)){let p=he(f,o),m=ge(x,a),y=1/0,S=1/0,v=1/0,w=-1/0,T=-1/0,_=-1/0;for(let M=3*p,L=3*(p+m);M<L;M++){let A=n[M],R=s.getX(A),P=s.getY(A),O=s.getZ(A);R<y&&(y=R),R>w&&(w=R),P<S&&(S=P),P>T&&(T=P),O<v&&(v=O),O>_&&(_=O)}return l[f+0]!==y||l[f+1]!==S||l[f+2]!==v||l[f+3]!==w||l[f+4]!==T||l[f+5]!==_?(l[f+0]=y,l[f+1]=S,l[f+2]=v,l[f+3]=w,l[f+4]=T,l[f+5]=_,!0):!1}else{let p=re(f),m=oe(f,o),y=g,S=!1,v=!1;if(t){if(!y){let A=p/8+d/32,R=m/8+d/32;S=t.has(A),v=t.has(R),y=!S&&!v}}else S=!0,v=!0;let w=y||S,T=y||v,_=!1;w&&(_=u(p,d,y));let M=!1;T&&(M=u(m,d,y));let L=_||M;if(L)for(let A=0;A<3;A++){let R=p+A,P=m+A,O=l[R],N=l[R+3],B=l[P],V=l[P+3];l[f+A]=O<B?O:B,l[f+A+3]=N>V?N:V}return L}}}function mi(e,t,i,n,s){let r,o,a,l,c,h,u=1/i.direction.x,f=1/i.direction.y,d=1/i.direction.z,g=i.origin.x,x=i.origin.y,p=i.origin.z,m=t[e],y=t[e+3],S=t[e+1],v=t[e+3+1],w=t[e+2],T=t[e+3+2];return u>=0?(r=(m-g)*u,o=(y-g)*u):(r=(y-g)*u,o=(m-g)*u),f>=0?(a=(S-x)*f,l=(v-x)*f):(a=(v-x)*f,l=(S-x)*f),r>l||a>o||((a>r||isNaN(r))&&(r=a),(l<o||isNaN(o))&&(o=l),d>=0?(c=(w-p)*d,h=(T-p)*d):(c=(T-p)*d,h=(w-p)*d),r>h||c>o)?!1:((c>r||r!==r)&&(r=c),(h<o||o!==o)&&(o=h),r<=s&&o>=n)}function V0(e,t,i,n,s,r,o,a){let{geometry:l,_indirectBuffer:c}=e;for(let h=n,u=n+s;h<u;h++){let f=c?c[h]:h;ho(l,t,i,f,r,o,a)}}function G0(e,t,i,n,s,r,o){let{geometry:a,_indirectBuffer:l}=e,c=1/0,h=null;for(let u=n,f=n+s;u<f;u++){let d;d=ho(a,t,i,l?l[u]:u,null,r,o),d&&d.distance<c&&(h=d,c=d.distance)}return h}function W0(e,t,i,n,s,r,o){let{geometry:a}=i,{index:l}=a,c=a.attributes.position;for(let h=e,u=t+e;h<u;h++){let f;if(f=i.resolveTriangleIndex(h),Se(o,f*3,l,c),o.needsUpdate=!0,n(o,f,s,r))return!0}return!1}function X0(e,t,i,n,s,r,o){$t.setBuffer(e._roots[t]),mi(0,$t.float32Array,n,r,o)&&Kd(0,e,i,n,s,r,o),$t.clearBuffer()}function Kd(e,t,i,n,s,r,o){let{float32Array:a,uint16Array:l,uint32Array:c}=$t,h=e*2;if(jt(h,l)){let f=he(e,c),d=ge(h,l);B0(t,i,n,f,d,s,r,o)}else{let f=re(e);mi(f,a,n,r,o)&&Kd(f,t,i,n,s,r,o);let d=oe(e,c);mi(d,a,n,r,o)&&Kd(d,t,i,n,s,r,o)}}var LA=["x","y","z"];function $0(e,t,i,n,s,r){$t.setBuffer(e._roots[t]);let o=null;return mi(0,$t.float32Array,n,s,r)&&(o=Zd(0,e,i,n,s,r)),$t.clearBuffer(),o}function Zd(e,t,i,n,s,r){let{float32Array:o,uint16Array:a,uint32Array:l}=$t,c=e*2;if(jt(c,a)){let u=he(e,l),f=ge(c,a);return k0(t,i,n,u,f,s,r)}else{let u=io(e,l),f=LA[u],g=n.direction[f]>=0,x,p;g?(x=re(e),p=oe(e,l)):(x=oe(e,l),p=re(e));let y=mi(x,o,n,s,r)?Zd(x,t,i,n,s,r):null;if(y){let w=y.point[f];if(g?w<=o[p+u]:w>=o[p+u+3])return y}let v=mi(p,o,n,s,r)?Zd(p,t,i,n,s,r):null;return y&&v?y.distance<=v.distance?y:v:y||v||null}}var Oh=new Ce,uo=new ai,fo=new ai,Pa=new Vt,q0=new Oe,Uh=new Oe;function Y0(e,t,i,n){$t.setBuffer(e._roots[t]);let s=Jd(0,e,i,n);return $t.clearBuffer(),s}function Jd(e,t,i,n,s=null){let{float32Array:r,uint16Array:o,uint32Array:a}=$t,l=e*2;if(s===null&&(i.boundingBox||i.computeBoundingBox(),q0.set(i.boundingBox.min,i.boundingBox.max,n),s=q0),jt(l,o)){let h=t.geometry,u=h.index,f=h.attributes.position,d=i.index,g=i.attributes.position,x=he(e,a),p=ge(l,o);if(Pa.copy(n).invert(),i.boundsTree)return ve(e,r,Uh),Uh.matrix.copy(Pa),Uh.needsUpdate=!0,i.boundsTree.shapecast({intersectsBounds:y=>Uh.intersectsBox(y),intersectsTriangle:y=>{y.a.applyMatrix4(n),y.b.applyMatrix4(n),y.c.applyMatrix4(n),y.needsUpdate=!0;for(let S=x*3,v=(p+x)*3;S<v;S+=3)if(Se(fo,S,u,f),fo.needsUpdate=!0,y.intersectsTriangle(fo))return!0;return!1}});{let m=ys(i);for(let y=x*3,S=(p+x)*3;y<S;y+=3){Se(uo,y,u,f),uo.a.applyMatrix4(Pa),uo.b.applyMatrix4(Pa),uo.c.applyMatrix4(Pa),uo.needsUpdate=!0;for(let v=0,w=m*3;v<w;v+=3)if(Se(fo,v,d,g),fo.needsUpdate=!0,uo.intersectsTriangle(fo))return!0}}}else{let h=re(e),u=oe(e,a);return ve(h,r,Oh),!!(s.intersectsBox(Oh)&&Jd(h,t,i,n,s)||(ve(u,r,Oh),s.intersectsBox(Oh)&&Jd(u,t,i,n,s)))}}var Fh=new Vt,jd=new Oe,Ia=new Oe,NA=new C,DA=new C,OA=new C,UA=new C;function K0(e,t,i,n={},s={},r=0,o=1/0){t.boundingBox||t.computeBoundingBox(),jd.set(t.boundingBox.min,t.boundingBox.max,i),jd.needsUpdate=!0;let a=e.geometry,l=a.attributes.position,c=a.index,h=t.attributes.position,u=t.index,f=wi.getPrimitive(),d=wi.getPrimitive(),g=NA,x=DA,p=null,m=null;s&&(p=OA,m=UA);let y=1/0,S=null,v=null;return Fh.copy(i).invert(),Ia.matrix.copy(Fh),e.shapecast({boundsTraverseOrder:w=>jd.distanceToBox(w),intersectsBounds:(w,T,_)=>_<y&&_<o?(T&&(Ia.min.copy(w.min),Ia.max.copy(w.max),Ia.needsUpdate=!0),!0):!1,intersectsRange:(w,T)=>{if(t.boundsTree)return t.boundsTree.shapecast({boundsTraverseOrder:M=>Ia.distanceToBox(M),intersectsBounds:(M,L,A)=>A<y&&A<o,intersectsRange:(M,L)=>{for(let A=M,R=M+L;A<R;A++){Se(d,3*A,u,h),d.a.applyMatrix4(i),d.b.applyMatrix4(i),d.c.applyMatrix4(i),d.needsUpdate=!0;for(let P=w,O=w+T;P<O;P++){Se(f,3*P,c,l),f.needsUpdate=!0;let N=f.distanceToTriangle(d,g,p);if(N<y&&(x.copy(g),m&&m.copy(p),y=N,S=P,v=A),N<r)return!0}}}});{let _=ys(t);for(let M=0,L=_;M<L;M++){Se(d,3*M,u,h),d.a.applyMatrix4(i),d.b.applyMatrix4(i),d.c.applyMatrix4(i),d.needsUpdate=!0;for(let A=w,R=w+T;A<R;A++){Se(f,3*A,c,l),f.needsUpdate=!0;let P=f.distanceToTriangle(d,g,p);if(P<y&&(x.copy(g),m&&m.copy(p),y=P,S=A,v=M),P<r)return!0}}}}}),wi.releasePrimitive(f),wi.releasePrimitive(d),y===1/0?null:(n.point?n.point.copy(x):n.point=x.clone(),n.distance=y,n.faceIndex=S,s&&(s.point?s.point.copy(m):s.point=m.clone(),s.point.applyMatrix4(Fh),x.applyMatrix4(Fh),s.distance=x.sub(s.point).length(),s.faceIndex=v),n)}function Z0(e,t=null){t&&Array.isArray(t)&&(t=new Set(t));let i=e.geometry,n=i.index?i.index.array:null,s=i.attributes.position,r,o,a,l,c=0,h=e._roots;for(let f=0,d=h.length;f<d;f++)r=h[f],o=new Uint32Array(r),a=new Uint16Array(r),l=new Float32Array(r),u(0,c),c+=r.byteLength;function u(f,d,g=!1){let x=f*2;if(jt(x,a)){let p=he(f,o),m=ge(x,a),y=1/0,S=1/0,v=1/0,w=-1/0,T=-1/0,_=-1/0;for(let M=p,L=p+m;M<L;M++){let A=3*e.resolveTriangleIndex(M);for(let R=0;R<3;R++){let P=A+R;P=n?n[P]:P;let O=s.getX(P),N=s.getY(P),B=s.getZ(P);O<y&&(y=O),O>w&&(w=O),N<S&&(S=N),N>T&&(T=N),B<v&&(v=B),B>_&&(_=B)}}return l[f+0]!==y||l[f+1]!==S||l[f+2]!==v||l[f+3]!==w||l[f+4]!==T||l[f+5]!==_?(l[f+0]=y,l[f+1]=S,l[f+2]=v,l[f+3]=w,l[f+4]=T,l[f+5]=_,!0):!1}else{let p=re(f),m=oe(f,o),y=g,S=!1,v=!1;if(t){if(!y){let A=p/8+d/32,R=m/8+d/32;S=t.has(A),v=t.has(R),y=!S&&!v}}else S=!0,v=!0;let w=y||S,T=y||v,_=!1;w&&(_=u(p,d,y));let M=!1;T&&(M=u(m,d,y));let L=_||M;if(L)for(let A=0;A<3;A++){let R=p+A,P=m+A,O=l[R],N=l[R+3],B=l[P],V=l[P+3];l[f+A]=O<B?O:B,l[f+A+3]=N>V?N:V}return L}}}function J0(e,t,i,n,s,r,o){$t.setBuffer(e._roots[t]),mi(0,$t.float32Array,n,r,o)&&Qd(0,e,i,n,s,r,o),$t.clearBuffer()}function Qd(e,t,i,n,s,r,o){let{float32Array:a,uint16Array:l,uint32Array:c}=$t,h=e*2;if(jt(h,l)){let f=he(e,c),d=ge(h,l);V0(t,i,n,f,d,s,r,o)}else{let f=re(e);mi(f,a,n,r,o)&&Qd(f,t,i,n,s,r,o);let d=oe(e,c);mi(d,a,n,r,o)&&Qd(d,t,i,n,s,r,o)}}var FA=["x","y","z"];function j0(e,t,i,n,s,r){$t.setBuffer(e._roots[t]);let o=null;return mi(0,$t.float32Array,n,s,r)&&(o=tp(0,e,i,n,s,r)),$t.clearBuffer(),o}function tp(e,t,i,n,s,r){let{float32Array:o,uint16Array:a,uint32Array:l}=$t,c=e*2;if(jt(c,a)){let u=he(e,l),f=ge(c,a);return G0(t,i,n,u,f,s,r)}else{let u=io(e,l),f=FA[u],g=n.direction[f]>=0,x,p;g?(x=re(e),p=oe(e,l)):(x=oe(e,l),p=re(e));let y=mi(x,o,n,s,r)?tp(x,t,i,n,s,r):null;if(y){let w=y.point[f];if(g?w<=o[p+u]:w>=o[p+u+3])return y}let v=mi(p,o,n,s,r)?tp(p,t,i,n,s,r):null;return y&&v?y.distance<=v.distance?y:v:y||v||null}}var Bh=new Ce,po=new ai,mo=new ai,La=new Vt,Q0=new Oe,kh=new Oe;function ty(e,t,i,n){$t.setBuffer(e._roots[t]);let s=ep(0,e,i,n);return $t.clearBuffer(),s}function ep(e,t,i,n,s=null){let{float32Array:r,uint16Array:o,uint32Array:a}=$t,l=e*2;if(s===null&&(i.boundingBox||i.computeBoundingBox(),Q0.set(i.boundingBox.min,i.boundingBox.max,n),s=Q0),jt(l,o)){let h=t.geometry,u=h.index,f=h.attributes.position,d=i.index,g=i.attributes.position,x=he(e,a),p=ge(l,o);if(La.copy(n).invert(),i.boundsTree)return ve(e,r,kh),kh.matrix.copy(La),kh.needsUpdate=!0,i.boundsTree.shapecast({intersectsBounds:y=>kh.intersectsBox(y),intersectsTriangle:y=>{y.a.applyMatrix4(n),y.b.applyMatrix4(n),y.c.applyMatrix4(n),y.needsUpdate=!0;for(let S=x,v=p+x;S<v;S++)if(Se(mo,3*t.resolveTriangleIndex(S),u,f),mo.needsUpdate=!0,y.intersectsTriangle(mo))return!0;return!1}});{let m=ys(i);for(let y=x,S=p+x;y<S;y++){let v=t.resolveTriangleIndex(y);Se(po,3*v,u,f),po.a.applyMatrix4(La),po.b.applyMatrix4(La),po.c.applyMatrix4(La),po.needsUpdate=!0;for(let w=0,T=m*3;w<T;w+=3)if(Se(mo,w,d,g),mo.needsUpdate=!0,po.intersectsTriangle(mo))return!0}}}else{let h=re(e),u=oe(e,a);return ve(h,r,Bh),!!(s.intersectsBox(Bh)&&ep(h,t,i,n,s)||(ve(u,r,Bh),s.intersectsBox(Bh)&&ep(u,t,i,n,s)))}}var zh=new Vt,ip=new Oe,Na=new Oe,BA=new C,kA=new C,zA=new C,HA=new C;function ey(e,t,i,n={},s={},r=0,o=1/0){t.boundingBox||t.computeBoundingBox(),ip.set(t.boundingBox.min,t.boundingBox.max,i),ip.needsUpdate=!0;let a=e.geometry,l=a.attributes.position,c=a.index,h=t.attributes.position,u=t.index,f=wi.getPrimitive(),d=wi.getPrimitive(),g=BA,x=kA,p=null,m=null;s&&(p=zA,m=HA);let y=1/0,S=null,v=null;return zh.copy(i).invert(),Na.matrix.copy(zh),e.shapecast({boundsTraverseOrder:w=>ip.distanceToBox(w),intersectsBounds:(w,T,_)=>_<y&&_<o?(T&&(Na.min.copy(w.min),Na.max.copy(w.max),Na.needsUpdate=!0),!0):!1,intersectsRange:(w,T)=>{if(t.boundsTree){let _=t.boundsTree;return _.shapecast({boundsTraverseOrder:M=>Na.distanceToBox(M),intersectsBounds:(M,L,A)=>A<y&&A<o,intersectsRange:(M,L)=>{for(let A=M,R=M+L;A<R;A++){let P=_.resolveTriangleIndex(A);Se(d,3*P,u,h),d.a.applyMatrix4(i),d.b.applyMatrix4(i),d.c.applyMatrix4(i),d.needsUpdate=!0;for(let O=w,N=w+T;O<N;O++){let B=e.resolveTriangleIndex(O);Se(f,3*B,c,l),f.needsUpdate=!0;let V=f.distanceToTriangle(d,g,p);if(V<y&&(x.copy(g),m&&m.copy(p),y=V,S=O,v=A),V<r)return!0}}}})}else{let _=ys(t);for(let M=0,L=_;M<L;M++){Se(d,3*M,u,h),d.a.applyMatrix4(i),d.b.applyMatrix4(i),d.c.applyMatrix4(i),d.needsUpdate=!0;for(let A=w,R=w+T;A<R;A++){let P=e.resolveTriangleIndex(A);Se(f,3*P,c,l),f.needsUpdate=!0;let O=f.distanceToTriangle(d,g,p);if(O<y&&(x.copy(g),m&&m.copy(p),y=O,S=A,v=M),O<r)return!0}}}}}),wi.releasePrimitive(f),wi.releasePrimitive(d),y===1/0?null:(n.point?n.point.copy(x):n.point=x.clone(),n.distance=y,n.faceIndex=S,s&&(s.point?s.point.copy(m):s.point=m.clone(),s.point.applyMatrix4(zh),x.applyMatrix4(zh),s.distance=x.sub(s.point).length(),s.faceIndex=v),n)}function np(e,t,i){return e===null?null:(e.point.applyMatrix4(t.matrixWorld),e.distance=e.point.distanceTo(i.ray.origin),e.object=t,e)}var Hh=new Oe,Vh=new on,iy=new C,ny=new Vt,sy=new C,sp=["getX","getY","getZ"],Da=class e extends Ph{static serialize(t,i={}){i={cloneBuffers:!0,...i};let n=t.geometry,s=t._roots,r=t._indirectBuffer,o=n.getIndex(),a={version:1,roots:null,index:null,indirectBuffer:null};return i.cloneBuffers?(a.roots=s.map(l=>l.slice()),a.index=o?o.array.slice():null,a.indirectBuffer=r?r.slice():null):(a.roots=s,a.index=o?o.array:null,a.indirectBuffer=r),a}static deserialize(t,i,n={}){n={setIndex:!0,indirect:!!t.indirectBuffer,...n};let{index:s,roots:r,indirectBuffer:o}=t;t.version||(console.warn("MeshBVH.deserialize: Serialization format has been changed and will be fixed up. It is recommended to regenerate any stored serialized data."),l(r));let a=new e(i,{...n,[ba]:!0});if(a._roots=r,a._indirectBuffer=o||null,n.setIndex){let c=i.getIndex();if(c===null){let h=new Zt(t.index,1,!1);i.setIndex(h)}else c.array!==s&&(c.array.set(s),c.needsUpdate=!0)}return a;function l(c){for(let h=0;h<c.length;h++){let u=c[h],f=new Uint32Array(u),d=new Uint16Array(u);for(let g=0,x=u.byteLength/32;g<x;g++){let p=8*g,m=2*p;jt(m,d)||(f[p+6]=f[p+6]/8-g)}}}}get primitiveStride(){return 3}get resolveTriangleIndex(){return this.resolvePrimitiveIndex}constructor(t,i={}){i.maxLeafTris&&(console.warn('MeshBVH: "maxLeafTris" option has been deprecated. Use "targetLeafSize", instead.'),i={...i,targetLeafSize:i.maxLeafTris}),super(t,i)}shiftTriangleOffsets(t){return super.shiftPrimitiveOffsets(t)}writePrimitiveBounds(t,i,n){let s=this.geometry,r=this._indirectBuffer,o=s.attributes.position,a=s.index?s.index.array:null,c=(r?r[t]:t)*3,h=c+0,u=c+1,f=c+2;a&&(h=a[h],u=a[u],f=a[f]);for(let d=0;d<3;d++){let g=o[sp[d]](h),x=o[sp[d]](u),p=o[sp[d]](f),m=g;x<m&&(m=x),p<m&&(m=p);let y=g;x>y&&(y=x),p>y&&(y=p),i[n+d]=m,i[n+d+3]=y}return i}computePrimitiveBounds(t,i,n){let s=this.geometry,r=this._indirectBuffer,o=s.attributes.position,a=s.index?s.index.array:null,l=o.normalized;if(t<0||i+t-n.offset>n.length/6)throw new Error("MeshBVH: compute triangle bounds range is invalid.");let c=o.array,h=o.offset||0,u=3;o.isInterleavedBufferAttribute&&(u=o.data.stride);let f=["getX","getY","getZ"],d=n.offset;for(let g=t,x=t+i;g<x;g++){let m=(r?r[g]:g)*3,y=(g-d)*6,S=m+0,v=m+1,w=m+2;a&&(S=a[S],v=a[v],w=a[w]),l||(S=S*u+h,v=v*u+h,w=w*u+h);for(let T=0;T<3;T++){let _,M,L;l?(_=o[f[T]](S),M=o[f[T]](v),L=o[f[T]](w)):(_=c[S+T],M=c[v+T],L=c[w+T]);let A=_;M<A&&(A=M),L<A&&(A=L);let R=_;M>R&&(R=M),L>R&&(R=L);let P=(R-A)/2,O=T*2;n[y+O+0]=A+P,n[y+O+1]=P+(Math.abs(A)+P)*eo}}return n}raycastObject3D(t,i,n=[]){let{material:s}=t;if(s===void 0)return;ny.copy(t.matrixWorld).invert(),Vh.copy(i.ray).applyMatrix4(ny),sy.setFromMatrixScale(t.matrixWorld),iy.copy(Vh.direction).multiply(sy);let r=iy.length(),o=i.near/r,a=i.far/r;if(i.firstHitOnly===!0){let l=this.raycastFirst(Vh,s,o,a);l=np(l,t,i),l&&n.push(l)}else{let l=this.raycast(Vh,s,o,a);for(let c=0,h=l.length;c<h;c++){let u=np(l[c],t,i);u&&n.push(u)}}return n}refit(t=null){return(this.indirect?Z0:H0)(this,t)}raycast(t,i=di,n=0,s=1/0){let r=this._roots,o=[],a=this.indirect?J0:X0;for(let l=0,c=r.length;l<c;l++)a(this,l,i,t,o,n,s);return o}raycastFirst(t,i=di,n=0,s=1/0){let r=this._roots,o=null,a=this.indirect?j0:$0;for(let l=0,c=r.length;l<c;l++){let h=a(this,l,i,t,n,s);h!=null&&(o==null||h.distance<o.distance)&&(o=h)}return o}intersectsGeometry(t,i){let n=!1,s=this._roots,r=this.indirect?ty:Y0;for(let o=0,a=s.length;o<a&&(n=r(this,o,t,i),!n);o++);return n}shapecast(t){let i=wi.getPrimitive(),n=super.shapecast({...t,intersectsPrimitive:t.intersectsTriangle,scratchPrimitive:i,iterate:this.indirect?W0:z0});return wi.releasePrimitive(i),n}bvhcast(t,i,n){let{intersectsRanges:s,intersectsTriangles:r}=n,o=wi.getPrimitive(),a=this.geometry.index,l=this.geometry.attributes.position,c=this.indirect?g=>{let x=this.resolveTriangleIndex(g);Se(o,x*3,a,l)}:g=>{Se(o,g*3,a,l)},h=wi.getPrimitive(),u=t.geometry.index,f=t.geometry.attributes.position,d=t.indirect?g=>{let x=t.resolveTriangleIndex(g);Se(h,x*3,u,f)}:g=>{Se(h,g*3,u,f)};if(r){if(!(t instanceof e))throw new Error('MeshBVH: "intersectsTriangles" callback can only be used with another MeshBVH.');let g=(x,p,m,y,S,v,w,T)=>{for(let _=m,M=m+y;_<M;_++){d(_),h.a.applyMatrix4(i),h.b.applyMatrix4(i),h.c.applyMatrix4(i),h.needsUpdate=!0;for(let L=x,A=x+p;L<A;L++)if(c(L),o.needsUpdate=!0,r(o,h,L,_,S,v,w,T))return!0}return!1};if(s){let x=s;s=function(p,m,y,S,v,w,T,_){return x(p,m,y,S,v,w,T,_)?!0:g(p,m,y,S,v,w,T,_)}}else s=g}return super.bvhcast(t,i,{intersectsRanges:s})}intersectsBox(t,i){return Hh.set(t.min,t.max,i),Hh.needsUpdate=!0,this.shapecast({intersectsBounds:n=>Hh.intersectsBox(n),intersectsTriangle:n=>Hh.intersectsTriangle(n)})}intersectsSphere(t){return this.shapecast({intersectsBounds:i=>t.intersectsBox(i),intersectsTriangle:i=>i.intersectsSphere(t)})}closestPointToGeometry(t,i,n={},s={},r=0,o=1/0){return(this.indirect?ey:K0)(this,t,i,n,s,r,o)}closestPointToPoint(t,i={},n=0,s=1/0){return L0(this,t,i,n,s)}};var VA=15e4;function ry(e){let t=e.attributes.position.array;if(t.length<=9*VA){e.boundsTree=new Da(e,{indirect:!0});return}let i=new Worker(dt.urls.pick_worker,{type:"module"});e.addEventListener("dispose",()=>i.terminate()),i.onmessage=({data:n})=>{e.boundsTree=Da.deserialize(n,e,{setIndex:!1}),i.terminate()},i.postMessage(t)}var GA=64;function WA(e,t){let i=[1/0,1/0,1/0],n=[-1/0,-1/0,-1/0];for(let f=0;f<e.length;f++){let d=f%3;e[f]<i[d]&&(i[d]=e[f]),e[f]>n[d]&&(n[d]=e[f])}let s=Math.max(n[0]-i[0],n[1]-i[1],n[2]-i[2],1e-9)/GA,[r,o,a]=[0,1,2].map(f=>Math.floor((n[f]-i[f])/s)+1),l=new Int32Array(r*o*a).fill(-1),c=new Int32Array(e.length/3);for(let f=0;f<c.length;f++){let[d,g,x]=[0,1,2].map(m=>Math.floor((e[3*f+m]-i[m])/s)),p=d+r*(g+o*x);l[p]<0&&(l[p]=f),c[f]=l[p]}let h=[],u=[];for(let f=0;3*f<t.length;f++){let d=[c[t[3*f]],c[t[3*f+1]],c[t[3*f+2]]];if(!(d[0]===d[1]||d[1]===d[2]||d[2]===d[0])){u.push(f);for(let g of d)h.push(e[3*g],e[3*g+1],e[3*g+2])}}return{corners:new Float32Array(h),source:Int32Array.from(u)}}var Gh=class{constructor(t,i,n,s){let{corners:r,source:o}=WA(t,i);Object.assign(this,{source:o,of:n}),this.geometry=new Jt,this.geometry.setAttribute("position",new Zt(r,3));for(let a of["normal","slope"])this.take(a);this.mesh=new pe(this.geometry,s),this.mesh.visible=!1}take(t){let i=this.of.getAttribute(t);if(!i)return this.geometry.deleteAttribute(t);let n=3*i.itemSize,s=new Float32Array(this.source.length*n);return this.source.forEach((r,o)=>s.set(i.array.subarray(n*r,n*r+n),n*o)),this.geometry.setAttribute(t,new Zt(s,i.itemSize))}};var oy=`
  attribute float slope;
  attribute float side;
  attribute float dye;
  uniform mat3 upright;
  uniform vec3 splitShift;
  varying float vSide;
  varying float vSlope;
  varying float vDye;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    vDye = dye;
    vSlope = slope;
    vSide = side;
    vec4 world = modelMatrix * vec4(position, 1.0);
    vWorld = world.xyz;
    vNormal = normalize(upright * normal);
    world.xyz += splitShift;
    gl_Position = projectionMatrix * viewMatrix * world;
  }`,XA=`
  uniform float threshold;
  uniform float cutZ;
  uniform bool hideAbove;
  uniform vec3 eye;
  uniform vec3 room;
  uniform vec4 split;
  uniform float splitSide;
  uniform bool showColours;
  varying float vSlope;
  varying float vSide;
  varying float vDye;
  varying vec3 vNormal;
  varying vec3 vWorld;
  void main() {
    if (vSlope < 0.0 || (hideAbove && vWorld.z > cutZ)) discard;
    // A facet in the plane itself belongs to the side that its material is on.
    if (splitSide * (dot(split.xyz, vWorld) - split.w - 0.001 * dot(split.xyz, vNormal)) < 0.0) discard;
    vec3 n = gl_FrontFacing ? vNormal : -vNormal;
    float key = 0.5 + 0.5 * dot(n, normalize(vec3(-0.4, -0.6, 0.7)));
    float head = max(dot(n, eye), 0.0);
    vec3 own = vec3(0.925, 0.898, 0.843);
    if (showColours && vDye > 0.5) {
      float packed24 = floor(vDye + 0.5) - 1.0;
      own = vec3(floor(packed24 / 65536.0), mod(floor(packed24 / 256.0), 256.0), mod(packed24, 256.0)) / 255.0;
    }
    vec3 colour = own * (0.58 + 0.20 * key + 0.26 * head);
    // Painted sides: dots on what is shown, level lines on what is free to be marked.
    if (vSide > 1.5) colour *= mod(gl_FragCoord.y, 6.0) < 1.5 ? vec3(0.62, 0.68, 0.78) : vec3(0.92, 0.94, 0.98);
    else if (vSide > 0.5) colour *= length(mod(gl_FragCoord.xy, 7.0) - 3.5) < 1.6 ? vec3(0.72, 0.56, 0.24) : vec3(1.0, 0.96, 0.84);
    if (!gl_FrontFacing) colour = vec3(0.62, 0.60, 0.57);
    else if (vSlope < threshold) {
      float deep = 1.0 - clamp(vSlope / threshold, 0.0, 1.0);
      vec3 plum = mix(vec3(0.80, 0.66, 0.78), vec3(0.36, 0.12, 0.33), deep);
      colour = plum * (0.8 + 0.25 * head);
    }
    // What leaves the build volume: brick stripes.
    if (any(greaterThan(abs(vWorld.xy), room.xy / 2.0 + 0.001)) || vWorld.z > room.z + 0.001)
      colour = mod(gl_FragCoord.x - gl_FragCoord.y, 10.0) < 5.0 ? vec3(0.64, 0.16, 0.11) : colour;
    float width = max(fwidth(vWorld.z), 1e-5) * 1.3;
    if (abs(vWorld.z - cutZ) < width) colour = vec3(0.76, 0.25, 0.05);
    gl_FragColor = vec4(colour, 1.0);
    #include <colorspace_fragment>
  }`,$A=`
  uniform float cutZ;
  uniform bool hideAbove;
  varying vec3 vWorld;
  void main() {
    if (hideAbove && vWorld.z > cutZ) discard;
    float stripe = step(0.5, fract((gl_FragCoord.x + gl_FragCoord.y) / 9.0));
    gl_FragColor = vec4(0.76, 0.25, 0.05, 0.45 + 0.4 * stripe);
  }`,Wh=class{group=new ee;constructor(t,i,n){Object.assign(this,{uniforms:t,isClosed:i,roughly:n,isHidden:null,stripes:null,apart:null}),this.group.matrixAutoUpdate=!1,this.matt=$r(new qe({vertexShader:oy,fragmentShader:XA,uniforms:t,side:i?di:Te,polygonOffset:!0,polygonOffsetFactor:1,polygonOffsetUnits:1})),this.mattApart=$r(this.matt.clone()),this.mattApart.uniforms={...t,splitSide:{value:1},splitShift:{value:new C}},this.mattApart.side=Te,this.striped=$r(new qe({vertexShader:oy,fragmentShader:$A,uniforms:t,transparent:!0,depthWrite:!1,side:Te})),this.inked=$r(new Ri({color:ne("ink"),transparent:!0,opacity:.75})),this.inked.onBeforeCompile=s=>{s.uniforms.cutZ=t.cutZ,s.uniforms.hideAbove=t.hideAbove,s.vertexShader=s.vertexShader.replace("void main() {",`varying float vZ;
void main() { vZ = (modelMatrix * vec4(position, 1.0)).z;`),s.fragmentShader=s.fragmentShader.replace("void main() {",`uniform float cutZ; uniform bool hideAbove; varying float vZ;
void main() { if (hideAbove && vZ > cutZ) discard;`)}}update(t,i,n){this.dispose(),this.vertices=t,this.facets=i;let s=new Float32Array(i.length*3);for(let a=0;a<i.length;a++){let l=3*i[a];s[3*a]=t[l],s[3*a+1]=t[l+1],s[3*a+2]=t[l+2]}let r=new Jt;r.setAttribute("position",new Zt(s,3)),r.computeVertexNormals(),r.setAttribute("slope",new Zt(new Float32Array(i.length).fill(999),1)),ry(r),this.mesh=new pe(r,this.matt);let o=new Jt;o.setAttribute("position",new Zt(t,3)),o.setIndex(new Zt(n,1)),this.ink=new Ui(o,this.inked),this.group.add(this.mesh,this.ink),this.roughly&&(this.rough=new Gh(t,i,r,this.matt),this.group.add(this.rough.mesh))}asItMoves(t){let i=!!(t&&this.rough&&!this.apart);return this.rough?(this.rough.mesh.visible=i,this.mesh.visible=!i,this.ink.visible=!i&&!this.isHidden&&this.uniforms.splitSide.value===0,this.stripes&&(this.stripes.visible=!i),i):!1}cornersOf(t){return this.group.updateMatrixWorld(!0),[0,1,2].map(i=>{let n=this.facets[3*t+i];return new C(...this.vertices.subarray(3*n,3*n+3)).applyMatrix4(this.mesh.matrixWorld).toArray()})}stand(t){this.group.matrix.fromArray(t),this.group.matrixWorldNeedsUpdate=!0}setSlopes(t){this.slopes=t;let i=this.mesh.geometry.getAttribute("slope");for(let n=0;n<t.length;n++)i.array.fill(this.isHidden?.(n)?-1:t[n],3*n,3*n+3);i.needsUpdate=!0,this.rough?.take("slope")}setSides(t){this.#e(t),this.rough?.take("side")}#e(t){let i=this.mesh.geometry;if(!t)return i.deleteAttribute("side");let n=new Float32Array(3*t.length);for(let r=0;r<t.length;r++)t[r]&&n.fill(t[r],3*r,3*r+3);let s=i.getAttribute("side");s?.array.length===n.length?(s.array.set(n),s.needsUpdate=!0):i.setAttribute("side",new Zt(n,1))}setColours(t){let i=this.mesh.geometry;if(t){let n=new Float32Array(3*t.length);for(let s=0;s<t.length;s++)t[s]&&n.fill(t[s],3*s,3*s+3);i.setAttribute("dye",new Zt(n,1))}else i.deleteAttribute("dye");this.rough?.take("dye")}setHidden(t){this.isHidden=t,this.ink.visible=!t,this.setSlopes(this.slopes)}setSplit(t,i){if(this.apart&&(!t||!this.mesh)&&(this.group.remove(this.apart),this.apart=null),this.uniforms.splitSide.value=t?-1:0,!this.mesh||(this.ink.visible=!this.isHidden&&!t,this.setOpen(!!t||this.uniforms.hideAbove.value),!t))return;let{normal:n,offset:s}=t;this.uniforms.split.value.set(...n,s),this.apart||(this.apart=new pe(this.mesh.geometry,this.mattApart),this.group.add(this.apart)),this.apart.material.uniforms.splitShift.value.set(...n).multiplyScalar(i)}setOpen(t){let i=this.isClosed&&!t?di:Te;!this.mesh||this.mesh.material.side===i||(this.mesh.material.side=i,this.mesh.material.needsUpdate=!0)}setChosen(t){if(this.stripes&&(this.group.remove(this.stripes),Xr(this.stripes),this.stripes=null),!t.length||!this.mesh)return;let i=this.mesh.geometry.getAttribute("position").array,n=new Float32Array(9*t.length);t.forEach((r,o)=>n.set(i.subarray(9*r,9*r+9),9*o));let s=new Jt;s.setAttribute("position",new Zt(n,3)),this.stripes=new pe(s,this.striped),this.group.add(this.stripes)}#t(t){let i=this.mesh.geometry.attributes.position,[n,s,r,o]=[0,1,2,3].map(()=>new C),a=[];for(let l=0;3*l<i.count;l++)n.fromBufferAttribute(i,3*l),s.fromBufferAttribute(i,3*l+1),r.fromBufferAttribute(i,3*l+2),t.intersectTriangle(n,s,r,!1,o)&&a.push({faceIndex:l,point:o.clone(),distance:o.distanceTo(t.origin)});return a}pick(t){this.group.updateMatrixWorld(!0);let i=this.mesh.matrixWorld,n=t.clone().applyMatrix4(i.clone().invert()),s=this.mesh.geometry.boundsTree,r=null;if(this.uniforms.hideAbove.value||this.isHidden||!s){let c=(s?s.raycast(n,Te):this.#t(n)).sort((u,f)=>u.distance-f.distance),h=this.uniforms.hideAbove.value?this.uniforms.cutZ.value:1/0;r=c.find(u=>!this.isHidden?.(u.faceIndex)&&u.point.clone().applyMatrix4(i).z<=h)??null}else r=s.raycastFirst(n,Te);if(!r)return null;let o=c=>{let h=this.facets[3*r.faceIndex+c];return new C(...this.vertices.subarray(3*h,3*h+3))},a=$e.getBarycoord(r.point,o(0),o(1),o(2),new C);if(!a)return null;let l=r.point.clone().applyMatrix4(i);return{facet:r.faceIndex,weights:a.toArray(),point:l.toArray(),distance:l.distanceTo(t.origin)}}dispose(){this.setSplit(null);for(let t of[this.mesh,this.ink,this.stripes,this.rough?.mesh])t&&(this.group.remove(t),Xr(t));this.stripes=this.rough=null}};var Xh=(e,t,i)=>new Ui(new Jt().setFromPoints(e),new Ri({color:t,transparent:!0,opacity:i,depthWrite:!1}));function ay(e,t,i){let n=new ee,s=(u,f,d=0)=>new C(u,f,d),r=[],o=[],[a,l]=[e/2,t/2];for(let u=Math.ceil(-a);u<=a;u++)u%10===0&&r.push(s(u,-l),s(u,l)),o.push(s(u,-l),s(u,-l-(u%10===0?4:u%5===0?2.6:1.4)));for(let u=Math.ceil(-l);u<=l;u++)u%10===0&&r.push(s(-a,u),s(a,u)),o.push(s(-a,u),s(-a-(u%10===0?4:u%5===0?2.6:1.4),u));let c=[s(-a,-l),s(a,-l),s(a,-l),s(a,l),s(a,l),s(-a,l),s(-a,l),s(-a,-l)],h=[];for(let[u,f]of[[-a,-l],[a,-l],[a,l],[-a,l]])h.push(s(u,f,i),s(u,f,i-8),s(u,f,i),s(u-Math.sign(u)*8,f,i),s(u,f,i),s(u,f-Math.sign(f)*8,i));return n.add(Xh(r,ne("ink"),.13),Xh(o,ne("ink"),.5),Xh(c,ne("ink"),.7),Xh(h,ne("ink"),.35)),n}var hy=[[150,24],[800,12],[1/0,7]],qA=8,ly=64,YA=`
  attribute vec4 tint;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying float vZ;
  void main() {
    vTint = tint;
    vNormal = normal;
    vZ = position.z;
    gl_Position = projectionMatrix * viewMatrix * vec4(position, 1.0);
  }`,KA=`
  uniform vec3 eye;
  uniform float cutZ;
  varying vec4 vTint;
  varying vec3 vNormal;
  varying float vZ;
  void main() {
    #ifdef CUT
    if (vZ > cutZ) discard;
    #endif
    float key = 0.5 + 0.5 * dot(vNormal, vec3(-0.398, -0.597, 0.696));
    gl_FragColor = vec4(vTint.rgb * (0.78 + 0.24 * key + 0.30 * max(dot(vNormal, eye), 0.0)), vTint.a);
    #include <colorspace_fragment>
  }`,ZA="if (length(gl_PointCoord - 0.5) > 0.5) discard;",cy=e=>hy.find(([t])=>e<=t)[1],rp=class{constructor(t,i){Object.assign(this,{room:t,sides:i,corners:4*i+2,perRod:12*i}),this.geometry=new Jt;let n=(a,l,c,h)=>{let u=new Zt(l,c,h).setUsage(sd);return this.geometry.setAttribute(a,u),u},s=this.corners*t;this.parts=[n("position",new Float32Array(3*s),3),n("normal",new Float32Array(3*s),3),n("tint",new Uint8Array(4*s),4,!0)];let r=[];for(let a=0;a<i;a++){let l=(a+1)%i,[c,h,u,f]=[2*a,2*l,2*l+1,2*a+1];r.push(c,h,u,c,u,f,4*i,2*i+l,2*i+a,4*i+1,3*i+a,3*i+l)}let o=new Uint32Array(this.perRod*t);for(let a=0;a<t;a++)for(let l=0;l<r.length;l++)o[r.length*a+l]=r[l]+this.corners*a;this.geometry.setIndex(new Zt(o,1)),this.ring=Array.from({length:i},(a,l)=>[Math.cos(2*Math.PI*l/i),Math.sin(2*Math.PI*l/i)])}write(t,[i,n,s,r,o,a,l,c],h){let u=new C(i,n,s),f=new C(r,o,a),d=f.clone().sub(u),g=(l-c)/Math.max(d.length(),1e-6);d.normalize();let x=(Math.abs(d.z)<.9?new C(0,0,1):new C(1,0,0)).cross(d).normalize(),p=d.clone().cross(x),{corners:m,sides:y}=this,[S,v,w]=this.parts.map(R=>R.array),T=m*t,_=(R,P,O,N)=>{S.set([R.x+O*P.x,R.y+O*P.y,R.z+O*P.z],3*T),v.set([N.x,N.y,N.z],3*T),T++},M=this.ring.map(([R,P])=>x.clone().multiplyScalar(R).addScaledVector(p,P));for(let R of M){let P=R.clone().addScaledVector(d,g).normalize();_(u,R,l,P),_(f,R,c,P)}let L=d.clone().negate();for(let R of M)_(u,R,l,L);for(let R of M)_(f,R,c,d);_(u,d,0,L),_(f,d,0,d);let A=h.map(R=>Math.round(255*R));for(let R=0;R<m;R++)w.set(A,4*(m*t+R))}send(t,i){for(let n of this.parts){let s=n.itemSize*this.corners;n.addUpdateRange(s*t,s*(i-t)),n.needsUpdate=!0}}},$h=class{group=new ee;list=[];chosen=[];constructor(t){this.material=new qe({vertexShader:YA,fragmentShader:KA,uniforms:t}),this.rods=new pe(new Jt,this.material),this.rods.frustumCulled=!1,this.slots=new Map,this.#n(ly,hy[0][1]);let i=n=>{let s=new os({size:10,sizeAttenuation:!1,vertexColors:!0,depthTest:n});s.onBeforeCompile=o=>{o.fragmentShader=o.fragmentShader.replace("#include <clipping_planes_fragment>",`${ZA}
#include <clipping_planes_fragment>`)};let r=new Xs(new Jt,s);return r.frustumCulled=!1,r};this.handles=i(!0),this.chosenHandle=i(!1),this.crosses=new ee,this.solids=new pe(new Jt,this.material),this.wash=new pe(new Jt,new Yi({color:ne("teal-pale"),side:Te,polygonOffset:!0,polygonOffsetFactor:-2,polygonOffsetUnits:-4}));for(let n of[this.solids,this.wash])n.frustumCulled=n.visible=!1;this.group.add(this.rods,this.handles,this.chosenHandle,this.crosses,this.solids,this.wash)}update(t,i=this.chosen,n=[]){this.list=t,this.chosen=i;let s=new Set(n.map(a=>a.key));this.shown=s.size?[...t.filter(a=>!s.has(a.key)),...n]:t,this.#i(),this.#s(),ce(this.crosses);let r=1.6,o=this.shown.filter(a=>a.blocked_at_mm).flatMap(({blocked_at_mm:[a,l,c]})=>[[1,1],[1,-1]].flatMap(([h,u])=>[[a-r*h,l,c-r*u],[a+r*h,l,c+r*u]]));o.length&&this.crosses.add(qr(o,ne("brick"),{depthTest:!1}))}setSolids(t){if(this.#e(this.solids,t),!t?.length)return;let i=new Uint8Array(4*t.length/3),n=[...bn("teal"),1].map(s=>Math.round(255*s));for(let s=0;s<i.length;s+=4)i.set(n,s);this.solids.geometry.setAttribute("tint",new Zt(i,4,!0)),this.solids.geometry.computeVertexNormals()}setWash(t){this.#e(this.wash,t)}#e(t,i){t.geometry.dispose(),t.geometry=new Jt,t.visible=!!i?.length,t.visible&&t.geometry.setAttribute("position",new Zt(i,3))}setOpen(t){!!this.material.defines.CUT!==t&&(t?this.material.defines.CUT=1:delete this.material.defines.CUT,this.material.needsUpdate=!0)}pick(t,i,n){let s=null;for(let a of this.shown??[]){if(!a.has_contact)continue;let[l,c]=n(a.contact_mm);if(Math.hypot(l-i[0],c-i[1])>qA)continue;let h=t.origin.distanceTo(new C(...a.contact_mm)),u=this.chosen.includes(a.key);if((!s||u||h<s.far)&&(s={key:a.key,far:h,isHandle:!0}),u)break}if(s)return s;let[r,o]=[new C,new C];for(let a of this.shown??[])for(let[l,c,h,u,f,d,g,x]of a.rods){let[p,m]=[new C(l,c,h),new C(u,f,d)],y=Math.sqrt(t.distanceSqToSegment(p,m,r,o)),S=p.distanceTo(o)/(p.distanceTo(m)||1);if(y>g+S*(x-g))continue;let v=t.origin.distanceTo(r);(!s||v<s.far)&&(s={key:a.key,far:v,isHandle:!1})}return s}#t(t){if(t.proposed)return[...bn("teal").map((n,s)=>(n+bn("teal-pale")[s])/2),1];let i=t.fit!=="stands"?"brick":this.chosen.includes(t.key)?"accent":"teal";return[...bn(i),t.fit!=="stands"?.35:1]}#i(){let t=this.shown.filter(a=>a.rods.length),i=t.map(a=>`${a.key}:${a.rods.length}`).join(),n=t.reduce((a,l)=>a+l.rods.length,0);i!==this.keys&&this.slots.clear(),this.keys=i,(n>this.bars.room||cy(n)!==this.bars.sides)&&this.#n(Math.max(2*n,ly),cy(n));let s=0,[r,o]=[1/0,-1];for(let a of t){let l=this.#t(a),c=JSON.stringify([a.rods,l]);this.slots.get(a.key)!==c&&(this.slots.set(a.key,c),a.rods.forEach((h,u)=>this.bars.write(s+u,h,l)),r=Math.min(r,s),o=Math.max(o,s+a.rods.length)),s+=a.rods.length}this.rods.geometry.setDrawRange(0,this.bars.perRod*n),this.rods.visible=n>0,this.material.transparent=t.some(a=>a.fit!=="stands"),o>=0&&this.bars.send(r,o)}#n(t,i){this.rods.geometry.dispose(),this.bars=new rp(t,i),this.rods.geometry=this.bars.geometry,this.slots.clear()}#s(){let t=this.shown.filter(s=>s.has_contact),i=t.filter(s=>this.chosen.includes(s.key)),n=t.filter(s=>!this.chosen.includes(s.key));for(let[s,r]of[[this.handles,n],[this.chosenHandle,i]]){let o=s.geometry,a=new Float32Array(r.flatMap(c=>c.contact_mm)),l=new Float32Array(r.flatMap(c=>this.#t(c).slice(0,3)));if(o.getAttribute("position")?.array.length===a.length)for(let[c,h]of[["position",a],["color",l]])o.getAttribute(c).array.set(h),o.getAttribute(c).needsUpdate=!0;else o.dispose(),s.geometry=new Jt().setAttribute("position",new Zt(a,3)).setAttribute("color",new Zt(l,3));s.visible=r.length>0}}dispose(){ce(this.group)}};var JA=(e,t)=>Array.from({length:e.length/2},(i,n)=>[e[2*n],e[2*n+1],t]),qh=class{group=new ee;update(t){ce(this.group);for(let s of t.first_layer)this.group.add(qn(JA(s,.05),ne("accent"),{depthTest:!1}));if(!t.lowest.length)return;let i=t.lowest.map(s=>s.place),n=i.flatMap(([s,r,o])=>[[s,r,o],[s,r,0]]);this.group.add(ya(i,ne("ink"),9),qr(n,ne("ink"),{transparent:!0,opacity:.5,depthTest:!1}))}mark(t){ce(this.group),t.length&&this.group.add(ya(t,ne("accent"),9))}dispose(){ce(this.group)}};var jA=15e4,uy=200,QA=4,t1=/swiftshader|llvmpipe|softpipe|software|basic render/i;function e1(){let e=document.createElement("canvas").getContext("webgl2"),t=e?.getExtension("WEBGL_debug_renderer_info"),i=e?.getParameter(t?t.UNMASKED_RENDERER_WEBGL:e.RENDERER)??"";return e?.getExtension("WEBGL_lose_context")?.loseContext(),t1.test(i)}var Yh=class{constructor(t,i,n,s){Wt.enabled=!1,this.canvas=t,this.onChange=s;let r=i<jA,o=e1();this.smoothsLater=r&&o,this.renderer=new jc({canvas:t,antialias:r&&!this.smoothsLater,preserveDrawingBuffer:!0}),this.renderer.setClearColor(ne("paper")),this.renderer.outputColorSpace=Vs,this.scene=new Dr,this.parallel=new qs(-1,1,1,-1,-5e3,5e3),this.angled=new yi(30,1,1,2e4);for(let a of[this.parallel,this.angled])a.up.set(0,0,1);this.camera=this.parallel,this.controls=new yh(this.camera,t),this.controls.zoomToCursor=!0,this.controls.addEventListener("change",()=>this.draw()),this.uniforms={threshold:{value:45},cutZ:{value:-1},hideAbove:{value:!1},eye:{value:new C},upright:{value:new Nt},room:{value:new C(1e6,1e6,1e6)},split:{value:new be},splitSide:{value:0},showColours:{value:!0},splitShift:{value:new C}},this.model=new Wh(this.uniforms,n,!r&&o),this.supports=new $h(this.uniforms),this.measures=new vh,this.cut=new xh,this.turned=new qh,this.layers=[this.model,this.supports,this.measures,this.cut,this.turned];for(let a of this.layers)this.scene.add(a.group);this.size=[100,100,100],this.top=100,new ResizeObserver(()=>this.resize()).observe(t),this.resize()}add(t){return this.layers.push(t),this.scene.add(t.group),t}setMesh(t,i,n){this.model.update(t,i,n),this.draw()}setState(t){this.model.stand(t.matrix),this.size=t.size_mm,this.top=t.top_mm,this.uniforms.room.value.set(...t.build_volume_mm);let i=t.build_volume_mm.join();i!==this.plateSize&&(this.plateSize=i,this.plate&&(this.scene.remove(this.plate),Xr(this.plate)),this.plate=ay(...t.build_volume_mm),this.scene.add(this.plate)),this.draw()}setSupports(t,i,n){this.supports.update(t,i,n),this.draw()}setSolids(t){this.supports.setSolids(t),this.draw()}setWash(t){this.supports.setWash(t),this.draw()}setSlopes(t){this.model.setSlopes(t),this.draw()}setSides(t){this.model.setSides(t),this.draw()}setColours(t){this.model.setColours(t),this.draw()}setShowColours(t){this.uniforms.showColours.value=t,this.draw()}setHidden(t){this.model.setHidden(t),this.draw()}setChosenFacets(t){this.model.setChosen(t),this.draw()}setMeasures(t){this.measures.update(t),this.draw()}setPlane(t){this.cut.update(t),this.draw()}setSplit(t,i){this.model.setSplit(t,i),this.draw()}setTurned(t,i){this.model.stand(t.matrix),this.supports.group.visible=this.measures.group.visible=!1,this.turned.update(t),this.setSlopes(i)}clearTurned(){this.turned.dispose(),this.supports.group.visible=this.measures.group.visible=!0}markPlaces(t){this.turned.mark(t),this.draw()}setThreshold(t){this.uniforms.threshold.value=t-.01,this.draw()}setCut(t,i){this.uniforms.cutZ.value=t,this.uniforms.hideAbove.value=i,this.model.setOpen(i||this.uniforms.splitSide.value!==0),this.supports.setOpen(i),this.draw()}setPerspective(t){let i=this.camera;this.camera=t?this.angled:this.parallel;let n=this.controls.target,s=i.position.clone().sub(n).normalize();if(t){let r=(this.parallel.top-this.parallel.bottom)/this.parallel.zoom;this.camera.position.copy(n).addScaledVector(s,r/2/Math.tan(15*Math.PI/180))}else{let o=2*i.position.distanceTo(n)*Math.tan(15*Math.PI/180);this.camera.zoom=(this.camera.top-this.camera.bottom)/o,this.camera.position.copy(n).addScaledVector(s,500)}this.camera.updateProjectionMatrix(),this.controls.object=this.camera,this.controls.update(),this.draw()}look(t,i,n=null,s=null){let r=t*Math.PI/180,o=i*Math.PI/180,a=new C(Math.sin(r)*Math.cos(o),-Math.cos(r)*Math.cos(o),Math.sin(o)),[l,c]=this.size,h=s??this.top*Math.cos(o)+Math.hypot(l,c)*Math.abs(Math.sin(o)),u=s??Math.hypot(l,c),f=this.canvas.clientWidth||1,d=this.canvas.clientHeight||1,g=Math.max(h,u*d/f)*1.18;if(this.controls.target.set(...n??[0,0,this.top/2]),this.camera===this.parallel)this.camera.zoom=(this.camera.top-this.camera.bottom)/g,this.camera.position.copy(this.controls.target).addScaledVector(a,500);else{let x=g/2/Math.tan(15*Math.PI/180);this.camera.position.copy(this.controls.target).addScaledVector(a,x)}this.camera.updateProjectionMatrix(),this.controls.update(),this.draw()}showPlace(t,i){let n=this.camera.position.clone().sub(this.controls.target),s=n.length();if(i&&n.z/s>-.15){let r=Math.hypot(n.x,n.y)||1,o=-28*Math.PI/180;n.set(n.x/r*Math.cos(o),n.y/r*Math.cos(o),Math.sin(o)).multiplyScalar(s),r<1e-6&&n.set(0,-Math.cos(o),Math.sin(o)).multiplyScalar(s)}this.controls.target.set(...t),this.camera.position.copy(this.controls.target).add(n),this.controls.update(),this.draw()}frame(t,i){let n=this.camera.position.clone().sub(this.controls.target).normalize(),s=Math.atan2(n.x,-n.y)*180/Math.PI;this.look(s,Math.asin(n.z)*180/Math.PI,t,i)}ray(t,i){let n=this.canvas.getBoundingClientRect(),s=new Tt((t-n.left)/n.width*2-1,1-(i-n.top)/n.height*2);this.camera.updateMatrixWorld();let r=new sa;return r.setFromCamera(s,this.camera),r.ray}pick(t,i){return this.model.pick(this.ray(t,i))}pickSupport(t,i){let n=this.canvas.getBoundingClientRect(),s=this.ray(t,i),r=this.supports.pick(s,[t-n.left,i-n.top],a=>this.toScreen(a));if(!r)return null;let o=this.model.pick(s);return o&&o.distance<r.far-(r.isHandle?3:.05)?null:r}plateAt(t,i){let n=this.ray(t,i).intersectPlane(new Be(new C(0,0,1),0),new C);return n?[n.x,n.y]:null}toScreen(t){this.camera.updateMatrixWorld();let i=new C(...t).project(this.camera);return[(i.x+1)/2*this.canvas.clientWidth,(1-i.y)/2*this.canvas.clientHeight]}heightScale(){if(this.camera!==this.parallel)return null;let[,t]=this.toScreen([0,0,0]),[,i]=this.toScreen([0,0,1]);return{zero:t,perMm:t-i}}resize(){let{clientWidth:t,clientHeight:i}=this.canvas;!t||!i||(this.renderer.setPixelRatio(Math.min(window.devicePixelRatio,2)),this.renderer.setSize(t,i,!1),Object.assign(this.parallel,{left:-t/2,right:t/2,top:i/2,bottom:-i/2}),this.parallel.updateProjectionMatrix(),this.angled.aspect=t/i,this.angled.updateProjectionMatrix(),this.draw())}nextDrawing(){return this.draw(),new Promise(t=>this.waiters=[...this.waiters??[],t])}shown(){return new Promise(t=>{requestAnimationFrame(()=>requestAnimationFrame(t)),setTimeout(t,500)})}roughlyFor(t){let i=this.roughUntil>performance.now();this.roughUntil=performance.now()+t,i&&!t&&this.draw()}#e(){clearTimeout(this.stillAfter),this.canvas.removeAttribute("data-coarse")}#t(t,i=uy){this.canvas.toggleAttribute("data-coarse",!0),this.stillAfter=setTimeout(()=>{t(),this.#e()},i)}#i(){let t=[this.camera.matrixWorld,this.camera.projectionMatrix,this.model.group.matrix].flatMap(n=>n.elements),i=this.lastSeen;return this.lastSeen=t,!i||t.some((n,s)=>n!==i[s])}#n(){this.model.mesh&&(this.model.asItMoves(!1),this.renderer.render(this.scene,this.camera))}#s(){let t=this.renderer.getDrawingBufferSize(new Tt);if(!(!t.x||!t.y)){if(!this.samples){this.samples=new vi(t.x,t.y,{samples:QA});let i=new Yi({map:this.samples.texture,depthTest:!1,depthWrite:!1});this.flat=new Dr,this.flat.add(new pe(new $s(2,2),i)),this.facing=new qs(-1,1,1,-1,-1,1)}this.samples.setSize(t.x,t.y),this.renderer.setRenderTarget(this.samples),this.renderer.render(this.scene,this.camera),this.renderer.setRenderTarget(null),this.renderer.render(this.flat,this.facing)}}draw(){this.waiting||(this.waiting=!0,requestAnimationFrame(()=>{if(this.waiting=!1,!this.model.mesh)return;let t=this.camera===this.parallel?this.camera.zoom:this.canvas.clientHeight/(2*Math.tan(15*Math.PI/180)*this.camera.position.distanceTo(this.controls.target));this.beforeDraw?.(t),this.camera.getWorldDirection(this.uniforms.eye.value).negate(),this.uniforms.upright.value.getNormalMatrix(this.model.group.matrix);let i=(this.roughUntil??0)-performance.now(),n=this.model.asItMoves(this.#i()||i>0);this.renderer.render(this.scene,this.camera),this.#e(),n?this.#t(()=>this.#n(),Math.max(uy,i)):this.smoothsLater&&window.devicePixelRatio>=1&&this.#t(()=>this.#s()),this.drawn=(this.drawn??0)+1,this.onChange();for(let s of this.waiters?.splice(0)??[])s()}))}};var Kh=class{constructor(t,i){Object.assign(this,{target:t,onProblem:i,kept:new Map,wanted:null,busy:!1})}show(t){this.wanted=t;let i=this.kept.get(t);i!==void 0?this.target.innerHTML=i:this.busy||this.#e()}clear(){this.wanted=null,this.target.replaceChildren()}async#e(){this.busy=!0;try{for(;this.wanted&&!this.kept.has(this.wanted);){let t=this.wanted,i=await ng(t);this.kept.set(t,i),this.kept.size>400&&this.kept.delete(this.kept.keys().next().value),this.wanted&&(this.target.innerHTML=i)}}catch(t){this.onProblem(t)}finally{this.busy=!1}}};var Zh=class{constructor(t,i,n){Object.assign(this,{state:t,urls:i,onState:n,queue:Promise.resolve(),catching:null})}after(t){let i=this.queue.then(t);return this.queue=i.catch(()=>{}),i}change(t,i){return this.after(async()=>{try{let{state:n}=await zt(`${t}?findings=later`,{...i,revision:this.state.revision});return this.#e(n,!1),null}catch(n){return n.status===409&&n.body.state&&this.#e(n.body.state,!0),n}})}edit(t,i){return this.change(this.urls.edits,{kind:t,parameters:i})}catchUp(){return this.catching??=Ne(this.urls.state).then(t=>t.revision!==this.state.revision&&this.#e(t,!0)).finally(()=>this.catching=null),this.catching}#e(t,i){this.state=t,this.onState(t,i)}};var fy={stances:dt.strip.stances,away:dt.strip.away,stripUndo:dt.strip.undo,stripRedo:dt.strip.redo,stripRevision:dt.strip.revision,naming:null,picked:[],get compareUrl(){return this.picked.length>1?`${dt.urls.compare}?stances=${this.picked.join(",")}`:dt.urls.compare},get presentName(){return this.stances.find(e=>e.present)?.name},compareText:e=>`Compare ${e.name}`,goText:e=>`Go to ${e.name}`,awayText:e=>`${e.name}, ${e.edits} edit${e.edits===1?"":"s"}`,get isFirst(){return this.stances[0]?.present},get isLast(){return this.stances.at(-1)?.present},inView(e,t){e.present&&this.figures&&this.$nextTick(()=>t.scrollIntoView({block:"nearest",inline:"nearest"}))},nameIt(e,t){this.naming===e.id&&this.$nextTick(()=>t.select())},stripText(e){let t=[`supports ${ae(e.support_mm3)} mm\xB3`,`${e.minutes.toFixed(0)} min`];return e.scar_mm2&&t.push(`marks ${ae(e.scar_mm2)} mm\xB2`),t.push(`${e.islands} island${e.islands===1?"":"s"}`),t.join(" \xB7 ")},pick(e,t){this.picked=t?[...this.picked,e]:this.picked.filter(i=>i!==e)},async refreshStrip(){this.showStrip(await Ne(dt.urls.strip))},showStrip(e){this.stances=e.stances,this.away=e.away,this.stripUndo=e.undo,this.stripRedo=e.redo,this.stripRevision=e.revision},strip(e,t={}){return this.changeStrip(dt.urls[e],t)},async changeStrip(e,t={}){try{let i=await ct.store.after(()=>Fs(zt(e,{...t,strip_revision:this.stripRevision})));if(i.go!==dt.urls.page){document.documentElement.toggleAttribute("data-leaving",!0),location.href=i.go;return}this.showStrip(i)}catch(i){this.problem=i.message,i.status===409&&i.body.strip&&this.showStrip(i.body.strip)}},async readStance(e){let[t]=e.files;t&&await this.strip("take_in",{text:await t.text()}),e.value=""},rename(e,t){if(this.naming=null,t.trim()&&t.trim()!==e.name)return this.strip("rename",{name:t})},forkTurned(e){let[t,i,n]=e;return this.strip("fork",{edits:[{kind:"turn",parameters:{x_deg:t,y_deg:i,z_deg:n}}]})}};var i1="http://www.w3.org/2000/svg",Ii=(e,t,i)=>{let n=document.createElementNS(i1,e);for(let[s,r]of Object.entries(t))n.setAttribute(s,r);return i!==void 0&&(n.textContent=i),n},Zn=34,op=22,Jh=class{constructor(t,i,n){Object.assign(this,{svg:t,onLayer:i,onFinding:n,data:null,findings:[],layer:0,scale:null,measure:"area_mm2"}),t.addEventListener("pointerdown",s=>{!this.data||s.target.closest("[data-pin]")||(t.setPointerCapture(s.pointerId),this.dragging=!0,this.#n(s))}),t.addEventListener("pointermove",s=>this.dragging&&this.#n(s)),t.addEventListener("pointerup",()=>this.dragging=!1),t.addEventListener("pointercancel",()=>this.dragging=!1),t.addEventListener("wheel",s=>{s.preventDefault(),this.onLayer(this.layer-Math.sign(s.deltaY)*(s.shiftKey?10:1))},{passive:!1}),t.addEventListener("click",s=>{let r=s.target.closest("[data-pin]");r&&this.onFinding(r.dataset.pin)}),new ResizeObserver(()=>this.draw()).observe(t)}setData(t,i){Object.assign(this,{data:t,findings:i}),this.draw()}setMeasure(t){this.measure=t,this.draw()}setScale(t){let i=JSON.stringify(t)!==JSON.stringify(this.scale);this.scale=t,i&&this.draw()}setLayer(t){this.layer=t,this.#s()}#e(){return this.data.count*this.data.layer_height_mm}#t(){let t=this.svg.clientHeight,i=this.#e(),n={zero:t-24,perMm:(t-52)/i,own:!0};if(!this.scale)return n;let s=this.scale.perMm*i;return s>60&&s<30*t?this.scale:n}#i(t){return this.used.zero-t*this.used.perMm}#n(t){let i=t.clientY-this.svg.getBoundingClientRect().top,n=(this.used.zero-i)/this.used.perMm;this.onLayer(Math.floor(n/this.data.layer_height_mm))}draw(){let{svg:t}=this;if(t.replaceChildren(),!this.data||!this.data.count)return;this.used=this.#t();let{layer_height_mm:i,count:n}=this.data,s=this.data[this.measure],r=t.clientWidth,o=t.clientHeight,a=s.reduce((u,f)=>Math.max(u,f),1e-9),l=u=>Zn+u/a*(r-Zn-op),c=`M${Zn} ${this.#i(0)}`;for(let u=0;u<n;u++)c+=`L${l(s[u]).toFixed(1)} ${this.#i(u*i).toFixed(2)}V${this.#i((u+1)*i).toFixed(2)}`;t.append(Ii("path",{d:`${c}H${Zn}Z`,fill:xe("sand"),stroke:xe("ink"),"stroke-width":1})),t.append(Ii("path",{d:`M${Zn} ${Math.max(this.#i(this.#e()),0)}V${Math.min(this.#i(0),o)}`,stroke:xe("ink")}));let h=[.1,.2,.5,1,2,5,10,20,50,100].find(u=>u*this.used.perMm>22)??200;for(let u=0;u<=this.#e()+1e-9;u+=h){let f=this.#i(u);f<8||f>o||(t.append(Ii("path",{d:`M${Zn-5} ${f}H${Zn}`,stroke:xe("ink")})),t.append(Ii("text",{x:Zn-7,y:f+4,"font-size":11,"text-anchor":"end",fill:xe("ink")},String(Number(u.toFixed(1))))))}t.append(Ii("text",{x:Zn+4,y:14,"font-size":11,fill:xe("faint")},this.used.own?"own scale, mm":"mm")),t.append(Ii("text",{x:r-4,y:o-6,"font-size":11,"text-anchor":"end",fill:xe("faint")},`${{area_mm2:"widest",grip:"most",perimeter_mm:"longest"}[this.measure]} ${ae(a,a<10?2:0)} ${{area_mm2:"mm\xB2",grip:"",perimeter_mm:"mm"}[this.measure]}`));for(let u of this.findings.slice(0,60)){let f=this.#i(u.z_mm);if(f<0||f>o)continue;let d=u.kind==="island",g=Ii("g",{"data-pin":u.id,class:"cursor-pointer"});g.append(Ii("title",{},`${u.number}: ${u.title}, z = ${u.z_mm.toFixed(2)} mm`)),g.append(Ii("rect",{x:r-op,y:f-7,width:op,height:14,fill:"transparent"})),g.append(Ii("path",{d:d?`M${r-18} ${f}V${f-10}H${r-6}V${f-4}H${r-18}`:`M${r-18} ${f}L${r-8} ${f-5}V${f+5}Z`,fill:d?xe("ink"):xe("plum"),stroke:d?xe("ink"):xe("plum")})),t.append(g)}this.cut=Ii("g",{"pointer-events":"none"}),t.append(this.cut),this.#s()}#s(){if(!this.cut||!this.data?.count)return;let t=this.data.layer_height_mm,i=(this.layer+.5)*t,n=this.#i(i);this.cut.replaceChildren(Ii("path",{d:`M0 ${n}H${this.svg.clientWidth}`,stroke:xe("accent"),"stroke-width":2}),Ii("rect",{x:0,y:n-8,width:31,height:16,fill:xe("accent")}),Ii("text",{x:29,y:n+4,"font-size":11,fill:"#fff","text-anchor":"end"},i.toFixed(i<100?2:1))),this.svg.setAttribute("aria-valuemin","0"),this.svg.setAttribute("aria-valuemax",String(this.data.count-1)),this.svg.setAttribute("aria-valuenow",String(this.layer)),this.svg.setAttribute("aria-valuetext",`layer ${this.layer}, z ${i.toFixed(2)} mm`)}};var dy={waysProps:{},waysCuts:{},waysShapes:{},async showWaysOut(e){let t=()=>this.$refs.ledger.querySelector(`[data-ways-for="${CSS.escape(e)}"]`),i=s=>t()&&(t().textContent=s),n=this.state.key;this.waysOf=n,i("Looking for ways out \u2026");try{let s=await zt(dt.urls.ways,{finding:e});if(s.work){this.waysWork=s.work;let r=await hi(s.work,o=>i(`${o.stage}, ${Math.round(100*o.done)} % \u2026`));if(this.waysWork=null,r.state!=="done")return i(r.state==="cancelled"?"Cancelled.":r.error);if(this.state.key!==n)return;s=await zt(dt.urls.ways,{finding:e})}t()&&s.html&&(t().innerHTML=s.html),this.waysCuts={...this.waysCuts,[e]:s.cuts},this.waysShapes={...this.waysShapes,[e]:s.shapes},this.waysProps={...this.waysProps,[e]:s.props}}catch(s){i(s.message)}},propSo(e,t){let i=(this.waysProps[e]?.[Number(t)]??[]).map(({key:n,...s})=>({name:n,...s}));return i.length&&this.edit("supports",{supports:i,what:`prop ${e}`})},shapeSo(e,t){let i=this.waysShapes[e]?.[Number(t)];return i&&this.edit("reshape",i)},cutSo(e,t){let i=this.waysCuts[e]?.[Number(t)];return i&&this.takeProposedCut(i)},turnTo(e){let[t,i,n]=e.split(",").map(Number);return this.edit("turn",{x_deg:t,y_deg:i,z_deg:n})}};var n1={home:[28,14],front:[0,0],left:[-90,0],above:[0,89.9],below:[20,-32]},s1=6e3,Pe,nr,jh,ap;de.data("bench",()=>og(...rg().map(e=>e.data??{}),dy,fy,{activities:dt.activities,activity:dt.activities[0].key,opened:[dt.activities[0].key],state:dt.state,findings:{ready:!1,error:"",findings:[],places:[],overhang:null},threshold:dt.state.threshold_deg,layer:0,chosen:null,hideAbove:!1,sectionOpen:!1,columnOpen:!0,letterKeys:localStorage.getItem("letter keys")!=="off",perspective:!1,loading:"Loading the model \u2026",problem:"",work:null,making:null,stopped:"",playing:null,drawingUrl:dt.state.drawing_url,freeCut:!1,plane:{turn:0,tilt:90,offset:0},towerBy:"area_mm2",layersUrl:dt.urls.layers,get layerHeightText(){return`layers of ${this.tidy(this.state.layer_height_mm)} mm`},get sizeText(){return this.state.size_mm.map(e=>e.toFixed(2)).join(" \xD7 ")+" mm"},get figures(){let e=(i,n)=>`${i} ${n}${i===1?"":"s"}`,t=[`height ${this.state.top_mm.toFixed(1)} mm`];if(this.findings.ready&&t.push(`${this.findings.tower.count} layers`,`overhang ${ae(this.findings.overhang.area_mm2)} mm\xB2`,e(this.findings.findings.filter(i=>i.kind==="island").length,"island"),e(this.findings.problems,"problem")),t.push(e(this.state.pillars.length,this.state.pillars.every(i=>i.kind==="pillar")?"pillar":"support")),this.findings.ready){let{grid_support_mm3:i,time_s:n,scar_mm2:s}=this.findings.estimate;t.push(`supports ${ae(i)} mm\xB3`,`${(n/60).toFixed(0)} min`),s&&t.push(`marks ${ae(s)} mm\xB2`)}return t.map(i=>i.replaceAll(" ","\xA0")).join(" \xB7 ")},get hint(){return Dn(this.activity).hint?.(this)??""},get toolInHand(){return!!Dn(this.activity).inHand?.(this)},get undoText(){return this.state.undo?`Undo: ${this.state.undo} (Ctrl+Z)`:"Nothing to undo"},get redoText(){return this.state.redo?`Redo: ${this.state.redo} (Ctrl+Shift+Z)`:"Nothing to redo"},get stripUndoText(){return`Undo: ${this.stripUndo}`},get stripRedoText(){return`Redo: ${this.stripRedo}`},get layerUrl(){return`${dt.urls.section}${this.layer}.svg`},barOf:e=>({width:`${(e?e.done:0)*100}%`}),dyed:e=>({background:e}),typedOr(e,t){if(e.dataset.typed)return e.value;let i=String(t??"");return document.activeElement===e&&e.value!==i&&queueMicrotask(()=>e.select()),i},tidy:e=>Number(Number(e).toFixed(4)),async init(){Pe=ct.view=new Yh(this.$refs.canvas,dt.state.facets,dt.state.is_closed,()=>this.drawn()),this.$refs.canvas.view=Pe,nr=ct.tower=new Jh(this.$refs.tower,t=>this.setLayer(t),t=>this.choosePlace(t)),jh=ct.section=new Kh(this.$refs.section,t=>this.refused(t)),ap=ct.store=new Zh(dt.state,dt.urls,(t,i)=>this.taken(t,i));let e=()=>Dn(this.activity);m0(this.$refs.canvas,Pe,{grab:(t,i,n)=>e().grab?.(this,t,i,n)??null,dragging:(t,i)=>e().dragging?.(this,t,i),dropped:(t,i)=>e().dropped?.(this,t,i),clicked:(t,i,n,s)=>e().click?.(this,t,i,n,s)}),this.$refs.canvas.addEventListener("pointermove",t=>t.buttons||e().hover?.(this,t)),window.addEventListener("input",t=>t.target.dataset&&(t.target.dataset.typed="1")),window.addEventListener("change",t=>t.target.dataset&&delete t.target.dataset.typed),window.addEventListener("making",t=>this.making=t.detail),window.addEventListener("error",()=>this.problem="Something went wrong on this page; reload it.");try{Pe.roughlyFor(s1),await this.loadMesh(dt.state),this.loading="",Pe.setState(de.raw(dt.state)),this.look("home"),await this.show(this.state),document.documentElement.dataset.ready="1"}catch(t){this.loading=t.message}},async loadMesh(e){if(this.shownMesh===e.mesh_url)return;let[t,i]=await Promise.all([He(e.mesh_url),He(e.creases_url)]);if(this.state.mesh_url!==e.mesh_url)return;this.shownMesh&&this.forgetBodies();let[n,s]=new Uint32Array(t,0,2);Pe.setMesh(new Float32Array(t,8,3*n),new Uint32Array(t,8+12*n,3*s),new Uint32Array(i)),this.shownMesh=e.mesh_url,this.shownSlopes=this.shownSides=this.shownColours=null},taken(e,t){t&&(this.problem="This was changed in another window; the page shows it as it is now."),Fs(this.show(e)).catch(i=>this.problem=i.message)},async show(e){e.process!==this.state.process&&(this.weights={});let t=e.part!==this.state.part;this.state=e,this.threshold=e.threshold_deg,this.offer=null,this.endPreview(),e.note&&(this.problem=e.note),this.keepChosen(e),Pe.setState(de.raw(e)),t&&Pe.frame(null,null),this.drawSupports(),Pe.setThreshold(this.threshold),Pe.setMeasures(de.raw(e.measures)),this.drawChosenPillar();try{await this.showDetails(e)}catch(i){this.refused(i)}},async showDetails(e){if(await this.loadMesh(e),this.state.mesh_url===e.mesh_url){if(e.slopes_url!==this.shownSlopes){let t=new Float32Array(await He(e.slopes_url));if(this.state.slopes_url!==e.slopes_url)return;this.shownSlopes=e.slopes_url,Pe.setSlopes(t)}e.sides_url!==this.shownSides&&(this.shownSides=e.sides_url,Pe.setSides(e.sides_url?new Uint32Array(await He(e.sides_url)):null)),e.colours_url!==this.shownColours&&(this.shownColours=e.colours_url,Pe.setColours(e.colours_url?new Uint32Array(await He(e.colours_url)):null)),await Pe.shown(),this.state.key===e.key&&(await this.showFindings(await Ne(dt.urls.findings)),this.drawingUrl=this.state.drawing_url,Dn(this.activity).shown?.(this),this.findings.ready&&await this.refreshStrip())}},async refused(e){e.status!==409?this.problem=e.message:await ap.catchUp().catch(t=>this.problem=t.message)},async showFindings(e){if(e.key!==this.state.key)return this.refused({status:409});if(this.findings={findings:[],places:[],...e},this.fillLedger(e.ledger_html??""),this.stopped="",!e.ready){nr.setData(null,[]),nr.draw(),jh.clear(),this.pinsFor([]),e.error||await this.slice();return}nr.setData(e.tower,this.flags),this.pinsFor(this.flags.slice(0,60)),e.findings.some(t=>t.id===this.chosen)||(this.chosen=null),this.markChosen(),this.setLayer(this.layer,!0),this.freeCut&&this.showPlane(),this.drawn(),this.loadPatches().finally(()=>Pe.roughlyFor(0))},async slice(){if(this.slicing===this.state.key)return;let e=this.slicing=this.state.key;this.stopped="";try{let{work:t}=await zt(dt.urls.slice);this.work=t;let i=await hi(t,n=>this.work?.id===n.id&&(this.work=n));if(this.state.key!==e)return;i.state==="done"?await this.showFindings(await Ne(dt.urls.findings)):this.stopped=i.state==="cancelled"?"Slicing was cancelled.":i.error}catch(t){this.problem=t.message}finally{this.slicing===e&&(this.slicing=null,this.work=null)}},async joinWork(e,t){try{let{open:i}=await Ne(dt.urls.work),n=i.find(s=>s.kind===e&&s.go===dt.urls.page);n&&t(...n.asked)}catch(i){this.problem=i.message}},get makingText(){return this.making?`${this.making.title}: ${this.making.stage}`:""},async cancelMaking(){this.making&&await Li(this.making).catch(e=>this.problem=e.message)},async cancelWork(){try{this.work&&await Li(this.work)}catch(e){this.problem=e.message}},async change(e,t,i){this.problem="";let n=await ap.change(e,t);return n?(this.problem=n.message,n.status===409||(i?.setAttribute("aria-invalid","true"),this.drawSupports(),this.threshold=this.state.threshold_deg),!1):(i?.removeAttribute("aria-invalid"),!0)},edit(e,t,i){return this.change(dt.urls.edits,{kind:e,parameters:t},i)},undo(){return this.change(dt.urls.undo)},redo(){return this.change(dt.urls.redo)},look(e){Pe.look(...n1[e])},frameSelection(){let e=this.findings.findings.find(t=>t.id===this.chosen);e&&Pe.frame(e.center_mm,Math.max(8,Math.hypot(...this.state.size_mm)/4))},togglePerspective(){this.perspective=!this.perspective,Pe.setPerspective(this.perspective)},toggleHide(){this.hideAbove=!this.hideAbove,this.showCut()},showCut(){Pe.setCut((this.layer+.5)*this.state.layer_height_mm,this.hideAbove)},setLayer(e,t=!1){let i=(this.findings.tower?.count??1)-1,n=Math.min(Math.max(Math.round(e)||0,0),Math.max(i,0));n===this.layer&&!t||(this.layer=n,nr.setLayer(n),this.showCut(),!this.freeCut&&this.findings.ready&&i>=0&&this.findings.key===this.state.key&&jh.show(`${dt.urls.section}${n}/?v=${this.state.view_key}`))},step(e){this.setLayer(this.layer+e)},play(){if(this.playing){clearInterval(this.playing),this.playing=null;return}let e=(this.findings.tower?.count??1)-1;this.layer>=e&&this.setLayer(0),this.playing=setInterval(()=>{this.step(1),this.layer>=(this.findings.tower?.count??1)-1&&this.play()},60)},measureTower(e){this.towerBy=e,nr.setMeasure(e)},drawn(){let e=Pe.heightScale();nr.setScale(e&&e.perMm>.55*Pe.camera.zoom?e:null);for(let t of this.$refs.pins.children){let[i,n]=Pe.toScreen(t.place);t.style.translate=`${i}px ${n}px`,t.hidden=this.pair!==null||this.changeTool&&!t.classList.contains("measured")||this.live!==null&&!t.dataset.turnLabel||this.hideAbove&&t.place[2]>(this.layer+1)*this.state.layer_height_mm}},pinsFor(e){let t=this.state.measures.filter(i=>i.value!==null).map(i=>{let n=document.createElement("span"),s=i.line_mm.length>2?i.line_mm[0]:i.line_mm[0].map((r,o)=>i.line_mm.reduce((a,l)=>a+l[o],0)/i.line_mm.length);return Object.assign(n,{className:"measured",textContent:`${i.value.toFixed(i.unit==="\xB0"?1:2)} ${i.unit}`,place:s}),n});this.$refs.pins.replaceChildren(...t,...e.map(i=>{let n=document.createElement("button");return Object.assign(n,{className:"pin",textContent:i.number,title:i.title,place:i.center_mm,tabIndex:-1}),n.dataset.pin=i.id,n.addEventListener("click",()=>this.choosePlace(i.id)),n}))},planeFields(){let e=Math.hypot(...this.state.size_mm)/2,t=(i,n,s,r,o)=>({name:i,label:n,low:s,high:r,unit:o,field:`plane-${i}`,range:`plane-${i}-range`,said:`${n} of the cut`,typed:`${n} of the cut, typed`});return[t("turn","turn",-180,180,"\xB0"),t("tilt","tilt",0,180,"\xB0"),t("offset","move",-e,e,"mm")]},toggleFreeCut(){if(this.freeCut=!this.freeCut,this.freeCut)return this.showPlane();Pe.setPlane(null),this.setLayer(this.layer,!0)},setPlane(e,t){Number.isFinite(t)&&(this.plane[e]=t,this.planeWanted=!0,this.showPlane())},async showPlane(){if(this.planeWanted=!0,!this.cutting){this.cutting=!0;try{for(;this.planeWanted;){this.planeWanted=!1;let{turn:e,tilt:t,offset:i}=this.plane,n=await Ne(`${dt.urls.plane}?turn=${e}&tilt=${t}&offset=${i}`);if(!this.freeCut)return;jh.clear(),this.$refs.section.innerHTML=n.html,Pe.setPlane(n)}}catch(e){this.problem=e.message}finally{this.cutting=!1}}},setActivity(e){let t=Dn(e);if(t.goesTo)return location.href=t.goesTo(this);if(e===this.activity)return;Dn(this.activity).leave?.(this);let i=this.$refs.column;this.scrolled={...this.scrolled,[this.activity]:i.scrollTop},this.activity=e;let n=this.opened.includes(e);n?t.enter?.(this):this.opened=[...this.opened,e],this.$nextTick(()=>{i.scrollTop=this.scrolled[e]??0,!n&&this.activity===e&&t.enter?.(this)})},tabBy(e){let t=this.activities.map(n=>n.key).filter(n=>!Dn(n).goesTo),i=Math.min(Math.max(t.indexOf(this.activity)+e,0),t.length-1);this.setActivity(t[i]),document.getElementById(`tab-${t[i]}`).focus()},setLetterKeys(e){this.letterKeys=e,localStorage.setItem("letter keys",e?"on":"off")},key(e){let t=e.target.closest?.("input, select, textarea, dialog"),i=e.ctrlKey||e.metaKey;if(i&&e.key.toLowerCase()==="z"&&!(t&&(t.type==="text"||t.dataset.typed)))return e.preventDefault(),e.shiftKey?this.redo():this.undo();if(t||i||e.altKey||!this.letterKeys&&e.key.length===1)return;let n=Dn(this.activity),s={"?":()=>this.$refs.keys.showModal(),ArrowUp:()=>this.step(1),ArrowDown:()=>this.step(-1),PageUp:()=>this.step(20),PageDown:()=>this.step(-20),n:()=>this.nextFinding(1),p:()=>this.nextFinding(-1),b:()=>this.look("below"),f:()=>this.look("front"),l:()=>this.look("left"),a:()=>this.look("above"),w:()=>this.look("home"),h:()=>this.toggleHide(),m:()=>this.play(),s:()=>this.frameSelection(),Escape:()=>n.escape?.(this)},r=c=>c?.[e.key]??c?.[e.key.toLowerCase()],o=r(s),a=r(n.keys),l=this.activities[Number(e.key)-1];if(l)return this.setActivity(l.key);!o&&!a||(e.preventDefault(),a?a(this,e):o())}}));de.start();
