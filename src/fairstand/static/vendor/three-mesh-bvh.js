import{Box3 as Z,Matrix4 as q,BufferAttribute as xt,Vector3 as M,Vector2 as X,Plane as Ji,Line3 as lt,Triangle as K,REVISION as he,BackSide as Qi,DoubleSide as As,Ray as me,FrontSide as An,BufferGeometry as It,Sphere as ts,Mesh as ye,Object3D as Bs,Group as Ts,LineBasicMaterial as Ps,MeshBasicMaterial as _s,Line as es,LineSegments as ns,LineLoop as is,Points as ss,BatchedMesh as Is,RGBAFormat as We,RGFormat as Ss,RedFormat as Ms,RGBAIntegerFormat as Bn,RGIntegerFormat as os,RedIntegerFormat as Ds,DataTexture as Tn,NearestFilter as qt,IntType as He,UnsignedIntType as le,FloatType as ue,UnsignedByteType as jn,UnsignedShortType as zs,ByteType as Gn,ShortType as Es,Vector4 as $n,Matrix3 as Fs}from"three";var rs=0,Rs=1,Cs=2,nt=0,gt=1,Jn=2,Oe=1.25,Pn=1,j=32,L=j/4,Xn=65535,Ns=Xn<<16,qe=Math.pow(2,-24),de=Symbol("SKIP_GENERATION"),cs={strategy:rs,maxDepth:40,targetLeafSize:10,useSharedArrayBuffer:!1,setBoundingBox:!0,onProgress:null,indirect:!1,verbose:!0,range:null,[de]:!1};function C(s,t,e){return e.min.x=t[s],e.min.y=t[s+1],e.min.z=t[s+2],e.max.x=t[s+3],e.max.y=t[s+4],e.max.z=t[s+5],e}function _n(s){let t=-1,e=-1/0;for(let n=0;n<3;n++){let i=s[n+3]-s[n];i>e&&(e=i,t=n)}return t}function Qn(s,t,e){for(let n=0;n<3;n++){let i=t[s+2*n],r=t[s+2*n+1],o=i-r,l=i+r;o<e[n]&&(e[n]=o),l>e[n+3]&&(e[n+3]=l)}}function en(s){let t=s[3]-s[0],e=s[4]-s[1],n=s[5]-s[2];return 2*(t*e+e*n+n*t)}function N(s,t){return t[s+15]===Xn}function U(s,t){return t[s+6]}function $(s,t){return t[s+14]}function k(s){return s+L}function H(s,t){let e=t[s+6];return s+e*L}function Ye(s,t){return t[s+7]}function nn(s,t,e,n,i){let r=1/0,o=1/0,l=1/0,c=-1/0,u=-1/0,f=-1/0,a=1/0,d=1/0,p=1/0,m=-1/0,g=-1/0,v=-1/0,b=s.offset||0;for(let h=(t-b)*6,y=(t+e-b)*6;h<y;h+=6){let x=s[h+0],w=s[h+1],_=x-w,A=x+w;_<r&&(r=_),A>c&&(c=A),x<a&&(a=x),x>m&&(m=x);let P=s[h+2],I=s[h+3],T=P-I,S=P+I;T<o&&(o=T),S>u&&(u=S),P<d&&(d=P),P>g&&(g=P);let B=s[h+4],D=s[h+5],z=B-D,E=B+D;z<l&&(l=z),E>f&&(f=E),B<p&&(p=B),B>v&&(v=B)}n[0]=r,n[1]=o,n[2]=l,n[3]=c,n[4]=u,n[5]=f,i[0]=a,i[1]=d,i[2]=p,i[3]=m,i[4]=g,i[5]=v}var at=8,Yn=8,sn=new Int32Array(at),ct=new Float32Array(at*6),Dt=new Float32Array(at*6),st=new Float32Array(6),xe=new Float32Array(6),ht=new Int32Array(Yn),ti=new Float32Array(Yn*6);function Ls(s,t,e,n){for(let i=0;i<3;i++){let r=t[s+2*i],o=t[s+2*i+1],l=r-o,c=r+o;l<e[n+i]&&(e[n+i]=l),c>e[n+i+3]&&(e[n+i+3]=c)}}function ei(s,t){let e=s[t+3]-s[t],n=s[t+4]-s[t+1],i=s[t+5]-s[t+2];return 2*(e*n+n*i+i*e)}function Vs(s,t,e,n,i,r){let o=-1,l=0;if(r===rs)o=_n(t),o!==-1&&(l=(t[o]+t[o+3])/2);else if(r===Rs)o=_n(s),o!==-1&&(l=Us(e,n,i,o));else if(r===Cs){let c=en(s),u=Oe*i,f=e.offset||0,a=(n-f)*6,d=(n+i-f)*6;for(let p=0;p<3;p++){let m=t[p],b=(t[p+3]-m)/at;if(i<Yn){for(let h=0;h<i;h++){let y=a+h*6,x=e[y+2*p],w=h;for(;w>0&&e[ht[w-1]+2*p]>x;)ht[w]=ht[w-1],w--;ht[w]=y}for(let h=0;h<3;h++)st[h]=1/0,st[h+3]=-1/0,xe[h]=1/0,xe[h+3]=-1/0;for(let h=i-1;h>=0;h--)Qn(ht[h],e,xe),ti.set(xe,h*6);for(let h=0;h<i-1;h++){Qn(ht[h],e,st);let y=e[ht[h+1]+2*p];if(e[ht[h]+2*p]===y)continue;let x=h+1,w=i-x,_=en(st)/c,A=ei(ti,x*6)/c,P=Pn+Oe*(_*x+A*w);P<u&&(o=p,u=P,l=y)}}else{for(let x=0;x<at;x++){sn[x]=0;for(let w=0;w<3;w++)ct[x*6+w]=1/0,ct[x*6+w+3]=-1/0}for(let x=a;x<d;x+=6){let A=~~((e[x+2*p]-m)/b);A>=at&&(A=at-1),sn[A]++,Ls(x,e,ct,A*6)}let h=(at-1)*6;for(let x=0;x<6;x++)Dt[h+x]=ct[h+x];for(let x=at-2;x>=0;x--){let w=x*6,_=w+6;for(let A=0;A<3;A++)Dt[w+A]=Math.min(ct[w+A],Dt[_+A]),Dt[w+A+3]=Math.max(ct[w+A+3],Dt[_+A+3])}let y=0;for(let x=0;x<at-1;x++){let w=x*6,_=sn[x];if(_!==0)for(let S=0;S<3;S++)y===0?(st[S]=ct[w+S],st[S+3]=ct[w+S+3]):(st[S]=Math.min(st[S],ct[w+S]),st[S+3]=Math.max(st[S+3],ct[w+S+3]));y+=_;let A=0,P=0;y!==0&&(A=en(st)/c);let I=i-y;I!==0&&(P=ei(Dt,w+6)/c);let T=Pn+Oe*(A*y+P*I);T<u&&(o=p,u=T,l=m+b+x*b)}}}}else console.warn(`BVH: Invalid build strategy value ${r} used.`);return{axis:o,pos:l}}function Us(s,t,e,n){let i=0,r=s.offset;for(let o=t,l=t+e;o<l;o++)i+=s[(o-r)*6+n*2];return i/e}function ks(s,t,e,n,i,r){let o=n,l=n+i-1,c=r.pos,u=r.axis*2,f=e.offset||0;for(;;){for(;o<=l&&e[(o-f)*6+u]<c;)o++;for(;o<=l&&e[(l-f)*6+u]>=c;)l--;if(o<l){for(let a=0;a<t;a++){let d=s[o*t+a];s[o*t+a]=s[l*t+a],s[l*t+a]=d}for(let a=0;a<6;a++){let d=o-f,p=l-f,m=e[d*6+a];e[d*6+a]=e[p*6+a],e[p*6+a]=m}o++,l--}else return o}}var Hs=Math.pow(2,32),zt=new Float32Array(6),ge=new Float32Array(6);function Os(s,t,e,n,i,r){let{maxDepth:o,verbose:l,targetLeafSize:c,_strictLeafSize:u=1/0,strategy:f,onProgress:a,useSharedArrayBuffer:d=!1}=i,p=s.primitiveBuffer,m=s.primitiveBufferStride,g=d?SharedArrayBuffer:ArrayBuffer,v=new g(j*Math.max(1,2*Math.ceil(n)-1)),b=new Float32Array(v),h=new Uint32Array(v),y=new Uint16Array(v),x=0,w=!1;return nn(t,e,n,zt,ge),P(e,n,0),v.slice(0,x*j);function _(I){a&&a((I-r.offset)/r.count)}function A(I,T,S){let B=I*2;h[I+6]=T,y[B+14]=S,y[B+15]=Xn,_(T+S)}function P(I,T,S){let B=x++,D=B*L;b.set(zt,D),!w&&S>=o&&(w=!0,l&&console.warn(`BVH: Max depth of ${o} reached when generating BVH. Consider increasing maxDepth.`));let z=T>u;if(T<=c&&!z||S>=o){A(D,I,T);return}let E=Vs(zt,ge,t,I,T,f),R=E.axis===-1?-1:ks(p,m,t,I,T,E);if(E.axis===-1||R===I||R===I+T){if(!z){A(D,I,T);return}E.axis=Math.max(0,_n(zt)),R=I+Math.max(1,Math.floor(T/2))}h[D+7]=E.axis;let pt=R-I;nn(t,I,pt,zt,ge),P(I,pt,S+1);let Yt=x-B;if(Yt>Hs)throw new Error("MeshBVH: Cannot store relative child node offset greater than 32 bits.");h[D+6]=Yt;let Zt=T-pt;nn(t,R,Zt,zt,ge),P(R,Zt,S+1)}}function qs(s,t){let e=s.getRootRanges(t.range),n=e[0],i=e[e.length-1],r={offset:n.offset,count:i.offset+i.count-n.offset},o=new Float32Array(6*r.count);o.offset=r.offset,s.computePrimitiveBounds(r.offset,r.count,o),s._roots=e.map(l=>Os(s,o,l.offset,l.count,t,r))}var St=class{constructor(t){this._getNewPrimitive=t,this._primitives=[]}getPrimitive(){let t=this._primitives;return t.length===0?this._getNewPrimitive():t.pop()}releasePrimitive(t){this._primitives.push(t)}},In=class{constructor(){this.float32Array=null,this.uint16Array=null,this.uint32Array=null;let t=[],e=null;this.setBuffer=n=>{e&&t.push(e),e=n,this.float32Array=new Float32Array(n),this.uint16Array=new Uint16Array(n),this.uint32Array=new Uint32Array(n)},this.clearBuffer=()=>{e=null,this.float32Array=null,this.uint16Array=null,this.uint32Array=null,t.length!==0&&this.setBuffer(t.pop())}}},F=new In,yt,Wt,Et=[],ve=new St(()=>new Z);function Ws(s,t,e,n,i,r){yt=ve.getPrimitive(),Wt=ve.getPrimitive(),Et.push(yt,Wt),F.setBuffer(s._roots[t]);let o=Sn(0,s.geometry,e,n,i,r);F.clearBuffer(),ve.releasePrimitive(yt),ve.releasePrimitive(Wt),Et.pop(),Et.pop();let l=Et.length;return l>0&&(Wt=Et[l-1],yt=Et[l-2]),o}function Sn(s,t,e,n,i=null,r=0,o=0){let{float32Array:l,uint16Array:c,uint32Array:u}=F,f=s*2;if(N(f,c)){let d=U(s,u),p=$(f,c);return C(s,l,yt),n(d,p,!1,o,r+s/L,yt)}else{let T=function(B){let{uint16Array:D,uint32Array:z}=F,E=B*2;for(;!N(E,D);)B=k(B),E=B*2;return U(B,z)},S=function(B){let{uint16Array:D,uint32Array:z}=F,E=B*2;for(;!N(E,D);)B=H(B,z),E=B*2;return U(B,z)+$(E,D)},d=k(s),p=H(s,u),m=d,g=p,v,b,h,y;if(i&&(h=yt,y=Wt,C(m,l,h),C(g,l,y),v=i(h),b=i(y),b<v)){m=p,g=d;let B=v;v=b,b=B,h=y}h||(h=yt,C(m,l,h));let x=N(m*2,c),w=e(h,x,v,o+1,r+m/L),_;if(w===Jn){let B=T(m),z=S(m)-B;_=n(B,z,!0,o+1,r+m/L,h)}else _=w&&Sn(m,t,e,n,i,r,o+1);if(_)return!0;y=Wt,C(g,l,y);let A=N(g*2,c),P=e(y,A,b,o+1,r+g/L),I;if(P===Jn){let B=T(g),z=S(g)-B;I=n(B,z,!0,o+1,r+g/L,y)}else I=P&&Sn(g,t,e,n,i,r,o+1);return!!I}}var fe=new F.constructor,$e=new F.constructor,mt=new St(()=>new Z),Ft=new Z,Rt=new Z,on=new Z,rn=new Z,cn=!1;function $s(s,t,e,n){if(cn)throw new Error("MeshBVH: Recursive calls to bvhcast not supported.");cn=!0;let i=s._roots,r=t._roots,o,l=0,c=0,u=new q().copy(e).invert();for(let f=0,a=i.length;f<a;f++){fe.setBuffer(i[f]),c=0;let d=mt.getPrimitive();C(0,fe.float32Array,d),d.applyMatrix4(u);for(let p=0,m=r.length;p<m&&($e.setBuffer(r[p]),o=ot(0,0,e,u,n,l,c,0,0,d),$e.clearBuffer(),c+=r[p].byteLength/j,!o);p++);if(mt.releasePrimitive(d),fe.clearBuffer(),l+=i[f].byteLength/j,o)break}return cn=!1,o}function ot(s,t,e,n,i,r=0,o=0,l=0,c=0,u=null,f=!1){let a,d;f?(a=$e,d=fe):(a=fe,d=$e);let p=a.float32Array,m=a.uint32Array,g=a.uint16Array,v=d.float32Array,b=d.uint32Array,h=d.uint16Array,y=s*2,x=t*2,w=N(y,g),_=N(x,h),A=!1;if(_&&w)f?A=i(U(t,b),$(t*2,h),U(s,m),$(s*2,g),c,o+t/L,l,r+s/L):A=i(U(s,m),$(s*2,g),U(t,b),$(t*2,h),l,r+s/L,c,o+t/L);else if(_){let P=mt.getPrimitive();C(t,v,P),P.applyMatrix4(e);let I=k(s),T=H(s,m);C(I,p,Ft),C(T,p,Rt);let S=P.intersectsBox(Ft),B=P.intersectsBox(Rt);A=S&&ot(t,I,n,e,i,o,r,c,l+1,P,!f)||B&&ot(t,T,n,e,i,o,r,c,l+1,P,!f),mt.releasePrimitive(P)}else{let P=k(t),I=H(t,b);C(P,v,on),C(I,v,rn);let T=u.intersectsBox(on),S=u.intersectsBox(rn);if(T&&S)A=ot(s,P,e,n,i,r,o,l,c+1,u,f)||ot(s,I,e,n,i,r,o,l,c+1,u,f);else if(T)if(w)A=ot(s,P,e,n,i,r,o,l,c+1,u,f);else{let B=mt.getPrimitive();B.copy(on).applyMatrix4(e);let D=k(s),z=H(s,m);C(D,p,Ft),C(z,p,Rt);let E=B.intersectsBox(Ft),R=B.intersectsBox(Rt);A=E&&ot(P,D,n,e,i,o,r,c,l+1,B,!f)||R&&ot(P,z,n,e,i,o,r,c,l+1,B,!f),mt.releasePrimitive(B)}else if(S)if(w)A=ot(s,I,e,n,i,r,o,l,c+1,u,f);else{let B=mt.getPrimitive();B.copy(rn).applyMatrix4(e);let D=k(s),z=H(s,m);C(D,p,Ft),C(z,p,Rt);let E=B.intersectsBox(Ft),R=B.intersectsBox(Rt);A=E&&ot(I,D,n,e,i,o,r,c,l+1,B,!f)||R&&ot(I,z,n,e,i,o,r,c,l+1,B,!f),mt.releasePrimitive(B)}}return A}var an=new class{constructor(){let s=null,t=null,e=null,n=!1;this.root=null,this.buffer=null,this.uint32Array=null,this.uint16Array=null,this.setBVH=(r,o)=>{if(n)throw new Error("BVHTraversalHelper: cannot call setBVH during an active traversal.");this.root=o,this.buffer=s=r._roots[o],this.uint16Array=e=new Uint16Array(s),this.uint32Array=t=new Uint32Array(s)},this.reset=()=>{this.root=null,this.buffer=s=null,this.uint16Array=e=null,this.uint32Array=t=null},this.getRangeStart=r=>{let o=r*2;for(;!N(o,e);)r=k(r),o=r*2;return U(r,t)},this.getRangeEnd=r=>{let o=r*2;for(;!N(o,e);)r=H(r,t),o=r*2;return U(r,t)+$(o,e)};let i=(r,o,l)=>{let c=o*2,u=N(c,e);if(!r(l,u,o)&&!u){let a=k(o),d=H(o,t);i(r,a,l+1),i(r,d,l+1)}};this.traverseBuffer=r=>{if(n)throw new Error("BVHTraversalHelper: cannot start a traversal during an active traversal.");n=!0;try{i(r,0,0)}finally{n=!1}},this.traverse=r=>{this.traverseBuffer((o,l,c)=>{if(l){let u=c*2,f=t[c+6],a=e[u+14];return r(o,l,new Float32Array(s,c*4,6),f,a)}else{let u=Ye(c,t);return r(o,l,new Float32Array(s,c*4,6),u)}})}}},ni=new Z,Ct=new Float32Array(6),Xe=class{constructor(){this._roots=null,this.primitiveBuffer=null,this.primitiveBufferStride=null}init(t){t={...cs,...t},"maxLeafSize"in t&&(console.warn('BVH: "maxLeafSize" option has been deprecated. Use "targetLeafSize", instead.'),t={...t,targetLeafSize:t.maxLeafSize}),qs(this,t)}getRootRanges(){throw new Error("BVH: getRootRanges() not implemented")}writePrimitiveBounds(){throw new Error("BVH: writePrimitiveBounds() not implemented")}writePrimitiveRangeBounds(t,e,n,i){let r=1/0,o=1/0,l=1/0,c=-1/0,u=-1/0,f=-1/0;for(let a=t,d=t+e;a<d;a++){this.writePrimitiveBounds(a,Ct,0);let[p,m,g,v,b,h]=Ct;p<r&&(r=p),v>c&&(c=v),m<o&&(o=m),b>u&&(u=b),g<l&&(l=g),h>f&&(f=h)}return n[i+0]=r,n[i+1]=o,n[i+2]=l,n[i+3]=c,n[i+4]=u,n[i+5]=f,n}computePrimitiveBounds(t,e,n){let i=n.offset||0;for(let r=t,o=t+e;r<o;r++){this.writePrimitiveBounds(r,Ct,0);let[l,c,u,f,a,d]=Ct,p=(l+f)/2,m=(c+a)/2,g=(u+d)/2,v=(f-l)/2,b=(a-c)/2,h=(d-u)/2,y=(r-i)*6;n[y+0]=p,n[y+1]=v+(Math.abs(p)+v)*qe,n[y+2]=m,n[y+3]=b+(Math.abs(m)+b)*qe,n[y+4]=g,n[y+5]=h+(Math.abs(g)+h)*qe}return n}shiftPrimitiveOffsets(t){let e=this._indirectBuffer;if(e)for(let n=0,i=e.length;n<i;n++)e[n]+=t;else{let n=this._roots;for(let i=0;i<n.length;i++){let r=n[i],o=new Uint32Array(r),l=new Uint16Array(r),c=r.byteLength/j;for(let u=0;u<c;u++){let f=L*u,a=2*f;N(a,l)&&(o[f+6]+=t)}}}}traverse(t,e=0){an.setBVH(this,e),an.traverse(t),an.reset()}refit(){let t=this._roots;for(let e=0,n=t.length;e<n;e++){let i=t[e],r=new Uint32Array(i),o=new Uint16Array(i),l=new Float32Array(i),c=i.byteLength/j;for(let u=c-1;u>=0;u--){let f=u*L,a=f*2;if(N(a,o)){let p=U(f,r),m=$(a,o);this.writePrimitiveRangeBounds(p,m,Ct,0),l.set(Ct,f)}else{let p=k(f),m=H(f,r);for(let g=0;g<3;g++){let v=l[p+g],b=l[p+g+3],h=l[m+g],y=l[m+g+3];l[f+g]=v<h?v:h,l[f+g+3]=b>y?b:y}}}}}getBoundingBox(t){return t.makeEmpty(),this._roots.forEach(n=>{C(0,new Float32Array(n),ni),t.union(ni)}),t}shapecast(t){let{boundsTraverseOrder:e,intersectsBounds:n,intersectsRange:i,intersectsPrimitive:r,scratchPrimitive:o,iterate:l}=t;if(i&&r){let a=i;i=(d,p,m,g,v)=>a(d,p,m,g,v)?!0:l(d,p,this,r,m,g,o)}else i||(r?i=(a,d,p,m)=>l(a,d,this,r,p,m,o):i=(a,d,p)=>p);let c=!1,u=0,f=this._roots;for(let a=0,d=f.length;a<d;a++){let p=f[a];if(c=Ws(this,a,n,i,e,u),c)break;u+=p.byteLength/j}return c}bvhcast(t,e,n){let{intersectsRanges:i}=n;return $s(this,t,e,i)}};function as(){return typeof SharedArrayBuffer<"u"}function Ze(s){return s.index?s.index.count:s.attributes.position.count}function Ke(s){return Ze(s)/3}function ls(s,t=ArrayBuffer){return s>65535?new Uint32Array(new t(4*s)):new Uint16Array(new t(2*s))}function Xs(s,t){if(!s.index){let e=s.attributes.position.count,n=t.useSharedArrayBuffer?SharedArrayBuffer:ArrayBuffer,i=ls(e,n);s.setIndex(new xt(i,1));for(let r=0;r<e;r++)i[r]=r}}function Ys(s,t,e){let n=Ze(s)/e,i=t||s.drawRange,r=i.start/e,o=(i.start+i.count)/e,l=Math.max(0,r),c=Math.min(n,o)-l;return{offset:Math.floor(l),count:Math.floor(c)}}function Zs(s,t){return s.groups.map(e=>({offset:e.start/t,count:e.count/t}))}function ii(s,t,e){let n=Ys(s,t,e),i=Zs(s,e);if(!i.length)return[n];let r=[],o=n.offset,l=n.offset+n.count,c=Ze(s)/e,u=[];for(let d of i){let{offset:p,count:m}=d,g=p,v=isFinite(m)?m:c-p,b=p+v;g<l&&b>o&&(u.push({pos:Math.max(o,g),isStart:!0}),u.push({pos:Math.min(l,b),isStart:!1}))}u.sort((d,p)=>d.pos!==p.pos?d.pos-p.pos:d.type==="end"?-1:1);let f=0,a=null;for(let d of u){let p=d.pos;f!==0&&p!==a&&r.push({offset:a,count:p-a}),f+=d.isStart?1:-1,a=p}return r}function Ks(s,t){let e=s[s.length-1],n=e.offset+e.count>2**16,i=s.reduce((u,f)=>u+f.count,0),r=n?4:2,o=t?new SharedArrayBuffer(i*r):new ArrayBuffer(i*r),l=n?new Uint32Array(o):new Uint16Array(o),c=0;for(let u=0;u<s.length;u++){let{offset:f,count:a}=s[u];for(let d=0;d<a;d++)l[c+d]=f+d;c+=a}return l}var $t=class extends Xe{get indirect(){return!!this._indirectBuffer}get primitiveStride(){return null}get primitiveBufferStride(){return this.indirect?1:this.primitiveStride}set primitiveBufferStride(t){}get primitiveBuffer(){return this.indirect?this._indirectBuffer:this.geometry.index.array}set primitiveBuffer(t){}constructor(t,e={}){if(t.isBufferGeometry){if(t.index&&t.index.isInterleavedBufferAttribute)throw new Error("BVH: InterleavedBufferAttribute is not supported for the index attribute.")}else throw new Error("BVH: Only BufferGeometries are supported.");if(e.useSharedArrayBuffer&&!as())throw new Error("BVH: SharedArrayBuffer is not available.");super(),this.geometry=t,this.resolvePrimitiveIndex=e.indirect?n=>this._indirectBuffer[n]:n=>n,this.primitiveBuffer=null,this.primitiveBufferStride=null,this._indirectBuffer=null,e={...cs,...e},e[de]||this.init(e)}init(t){let{geometry:e,primitiveStride:n}=this;if(t.indirect){let i=ii(e,t.range,n),r=Ks(i,t.useSharedArrayBuffer);this._indirectBuffer=r}else Xs(e,t);super.init(t),!e.boundingBox&&t.setBoundingBox&&(e.boundingBox=this.getBoundingBox(new Z))}getRootRanges(t){return this.indirect?[{offset:0,count:this._indirectBuffer.length}]:ii(this.geometry,t,this.primitiveStride)}raycastObject3D(){throw new Error("BVH: raycastObject3D() not implemented")}},rt=class{constructor(){this.min=1/0,this.max=-1/0}setFromPointsField(t,e){let n=1/0,i=-1/0;for(let r=0,o=t.length;r<o;r++){let c=t[r][e];n=c<n?c:n,i=c>i?c:i}this.min=n,this.max=i}setFromPoints(t,e){let n=1/0,i=-1/0;for(let r=0,o=e.length;r<o;r++){let l=e[r],c=t.dot(l);n=c<n?c:n,i=c>i?c:i}this.min=n,this.max=i}isSeparated(t){return this.min>t.max||t.min>this.max}};rt.prototype.setFromBox=(function(){let s=new M;return function(e,n){let i=n.min,r=n.max,o=1/0,l=-1/0;for(let c=0;c<=1;c++)for(let u=0;u<=1;u++)for(let f=0;f<=1;f++){s.x=i.x*c+r.x*(1-c),s.y=i.y*u+r.y*(1-u),s.z=i.z*f+r.z*(1-f);let a=e.dot(s);o=Math.min(a,o),l=Math.max(a,l)}this.min=o,this.max=l}})();var js=(function(){let s=new M,t=new M,e=new M;return function(i,r,o){let l=i.start,c=s,u=r.start,f=t;e.subVectors(l,u),s.subVectors(i.end,i.start),t.subVectors(r.end,r.start);let a=e.dot(f),d=f.dot(c),p=f.dot(f),m=e.dot(c),v=c.dot(c)*p-d*d,b,h;v!==0?b=(a*d-m*p)/v:b=0,h=(a+b*d)/p,o.x=b,o.y=h}})(),Zn=(function(){let s=new X,t=new M,e=new M;return function(i,r,o,l){js(i,r,s);let c=s.x,u=s.y;if(c>=0&&c<=1&&u>=0&&u<=1){i.at(c,o),r.at(u,l);return}else if(c>=0&&c<=1){u<0?r.at(0,l):r.at(1,l),i.closestPointToPoint(l,!0,o);return}else if(u>=0&&u<=1){c<0?i.at(0,o):i.at(1,o),r.closestPointToPoint(o,!0,l);return}else{let f;c<0?f=i.start:f=i.end;let a;u<0?a=r.start:a=r.end;let d=t,p=e;if(i.closestPointToPoint(a,!0,t),r.closestPointToPoint(f,!0,e),d.distanceToSquared(a)<=p.distanceToSquared(f)){o.copy(d),l.copy(a);return}else{o.copy(f),l.copy(p);return}}}})(),Gs=(function(){let s=new M,t=new M,e=new Ji,n=new lt;return function(r,o){let{radius:l,center:c}=r,{a:u,b:f,c:a}=o;if(n.start=u,n.end=f,n.closestPointToPoint(c,!0,s).distanceTo(c)<=l||(n.start=u,n.end=a,n.closestPointToPoint(c,!0,s).distanceTo(c)<=l)||(n.start=f,n.end=a,n.closestPointToPoint(c,!0,s).distanceTo(c)<=l))return!0;let g=o.getPlane(e);if(Math.abs(g.distanceToPoint(c))<=l){let b=g.projectPoint(c,t);if(o.containsPoint(b))return!0}return!1}})(),Js=["x","y","z"],ft=1e-15,si=ft*ft;function J(s){return Math.abs(s)<ft}var G=class extends K{constructor(...t){super(...t),this.isExtendedTriangle=!0,this.satAxes=new Array(4).fill().map(()=>new M),this.satBounds=new Array(4).fill().map(()=>new rt),this.points=[this.a,this.b,this.c],this.plane=new Ji,this.isDegenerateIntoSegment=!1,this.isDegenerateIntoPoint=!1,this.degenerateSegment=new lt,this.needsUpdate=!0}intersectsSphere(t){return Gs(t,this)}update(){let t=this.a,e=this.b,n=this.c,i=this.points,r=this.satAxes,o=this.satBounds,l=r[0],c=o[0];this.getNormal(l),c.setFromPoints(l,i);let u=r[1],f=o[1];u.subVectors(t,e),f.setFromPoints(u,i);let a=r[2],d=o[2];a.subVectors(e,n),d.setFromPoints(a,i);let p=r[3],m=o[3];p.subVectors(n,t),m.setFromPoints(p,i);let g=u.length(),v=a.length(),b=p.length();this.isDegenerateIntoPoint=!1,this.isDegenerateIntoSegment=!1,g<ft?v<ft||b<ft?this.isDegenerateIntoPoint=!0:(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(t),this.degenerateSegment.end.copy(n)):v<ft?b<ft?this.isDegenerateIntoPoint=!0:(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(e),this.degenerateSegment.end.copy(t)):b<ft&&(this.isDegenerateIntoSegment=!0,this.degenerateSegment.start.copy(n),this.degenerateSegment.end.copy(e)),this.plane.setFromNormalAndCoplanarPoint(l,t),this.needsUpdate=!1}};G.prototype.closestPointToSegment=(function(){let s=new M,t=new M,e=new lt;return function(i,r=null,o=null){this.needsUpdate&&this.update();let{start:l,end:c}=i,u=this.points,f,a=1/0,d=this.plane.distanceToPoint(l),p=this.plane.distanceToPoint(c);if(d*p<0&&this.plane.intersectLine(i,s)!==null&&this.containsPoint(s))return r&&r.copy(s),o&&o.copy(s),0;for(let m=0;m<3;m++){let g=(m+1)%3;e.start.copy(u[m]),e.end.copy(u[g]),Zn(e,i,s,t),f=s.distanceToSquared(t),f<a&&(a=f,r&&r.copy(s),o&&o.copy(t))}return this.closestPointToPoint(l,s),f=l.distanceToSquared(s),f<a&&(a=f,r&&r.copy(s),o&&o.copy(l)),this.closestPointToPoint(c,s),f=c.distanceToSquared(s),f<a&&(a=f,r&&r.copy(s),o&&o.copy(c)),Math.sqrt(a)}})();G.prototype.intersectsTriangle=(function(){let s=new G,t=new rt,e=new rt,n=new M,i=new M,r=new M,o=new M,l=new lt,c=new lt,u=new M,f=new X,a=new X;function d(y,x,w,_){let A=n;!y.isDegenerateIntoPoint&&!y.isDegenerateIntoSegment?A.copy(y.plane.normal):A.copy(x.plane.normal);let P=y.satBounds,I=y.satAxes;for(let B=1;B<4;B++){let D=P[B],z=I[B];if(t.setFromPoints(z,x.points),D.isSeparated(t)||(o.copy(A).cross(z),t.setFromPoints(o,y.points),e.setFromPoints(o,x.points),t.isSeparated(e)))return!1}let T=x.satBounds,S=x.satAxes;for(let B=1;B<4;B++){let D=T[B],z=S[B];if(t.setFromPoints(z,y.points),D.isSeparated(t)||(o.crossVectors(A,z),t.setFromPoints(o,y.points),e.setFromPoints(o,x.points),t.isSeparated(e)))return!1}return w&&(_||console.warn("ExtendedTriangle.intersectsTriangle: Triangles are coplanar which does not support an output edge. Setting edge to 0, 0, 0."),w.start.set(0,0,0),w.end.set(0,0,0)),!0}function p(y,x,w,_,A,P,I,T,S,B,D){let z=I/(I-T);B.x=_+(A-_)*z,D.start.subVectors(x,y).multiplyScalar(z).add(y),z=I/(I-S),B.y=_+(P-_)*z,D.end.subVectors(w,y).multiplyScalar(z).add(y)}function m(y,x,w,_,A,P,I,T,S,B,D){if(A>0)p(y.c,y.a,y.b,_,x,w,S,I,T,B,D);else if(P>0)p(y.b,y.a,y.c,w,x,_,T,I,S,B,D);else if(T*S>0||I!=0)p(y.a,y.b,y.c,x,w,_,I,T,S,B,D);else if(T!=0)p(y.b,y.a,y.c,w,x,_,T,I,S,B,D);else if(S!=0)p(y.c,y.a,y.b,_,x,w,S,I,T,B,D);else return!0;return!1}function g(y,x,w,_){let A=x.degenerateSegment,P=y.plane.distanceToPoint(A.start),I=y.plane.distanceToPoint(A.end);return J(P)?J(I)?d(y,x,w,_):(w&&(w.start.copy(A.start),w.end.copy(A.start)),y.containsPoint(A.start)):J(I)?(w&&(w.start.copy(A.end),w.end.copy(A.end)),y.containsPoint(A.end)):y.plane.intersectLine(A,n)!=null?(w&&(w.start.copy(n),w.end.copy(n)),y.containsPoint(n)):!1}function v(y,x,w){let _=x.a;return J(y.plane.distanceToPoint(_))&&y.containsPoint(_)?(w&&(w.start.copy(_),w.end.copy(_)),!0):!1}function b(y,x,w){let _=y.degenerateSegment,A=x.a;return _.closestPointToPoint(A,!0,n),A.distanceToSquared(n)<si?(w&&(w.start.copy(A),w.end.copy(A)),!0):!1}function h(y,x,w,_){if(y.isDegenerateIntoSegment)if(x.isDegenerateIntoSegment){let A=y.degenerateSegment,P=x.degenerateSegment,I=i,T=r;A.delta(I),P.delta(T);let S=n.subVectors(P.start,A.start),B=I.x*T.y-I.y*T.x;if(J(B))return!1;let D=(S.x*T.y-S.y*T.x)/B,z=-(I.x*S.y-I.y*S.x)/B;if(D<0||D>1||z<0||z>1)return!1;let E=A.start.z+I.z*D,R=P.start.z+T.z*z;return J(E-R)?(w&&(w.start.copy(A.start).addScaledVector(I,D),w.end.copy(A.start).addScaledVector(I,D)),!0):!1}else return x.isDegenerateIntoPoint?b(y,x,w):g(x,y,w,_);else{if(y.isDegenerateIntoPoint)return x.isDegenerateIntoPoint?x.a.distanceToSquared(y.a)<si?(w&&(w.start.copy(y.a),w.end.copy(y.a)),!0):!1:x.isDegenerateIntoSegment?b(x,y,w):v(x,y,w);if(x.isDegenerateIntoPoint)return v(y,x,w);if(x.isDegenerateIntoSegment)return g(y,x,w,_)}}return function(x,w=null,_=!1){this.needsUpdate&&this.update(),x.isExtendedTriangle?x.needsUpdate&&x.update():(s.copy(x),s.update(),x=s);let A=h(this,x,w,_);if(A!==void 0)return A;let P=this.plane,I=x.plane,T=I.distanceToPoint(this.a),S=I.distanceToPoint(this.b),B=I.distanceToPoint(this.c);J(T)&&(T=0),J(S)&&(S=0),J(B)&&(B=0);let D=T*S,z=T*B;if(D>0&&z>0)return!1;let E=P.distanceToPoint(x.a),R=P.distanceToPoint(x.b),pt=P.distanceToPoint(x.c);J(E)&&(E=0),J(R)&&(R=0),J(pt)&&(pt=0);let Yt=E*R,Zt=E*pt;if(Yt>0&&Zt>0)return!1;i.copy(P.normal),r.copy(I.normal);let Ge=i.cross(r),Je=0,Qe=Math.abs(Ge.x),Kn=Math.abs(Ge.y);Kn>Qe&&(Qe=Kn,Je=1),Math.abs(Ge.z)>Qe&&(Je=2);let Mt=Js[Je],ys=this.a[Mt],xs=this.b[Mt],gs=this.c[Mt],vs=x.a[Mt],bs=x.b[Mt],ws=x.c[Mt];if(m(this,ys,xs,gs,D,z,T,S,B,f,l))return d(this,x,w,_);if(m(x,vs,bs,ws,Yt,Zt,E,R,pt,a,c))return d(this,x,w,_);if(f.y<f.x){let tn=f.y;f.y=f.x,f.x=tn,u.copy(l.start),l.start.copy(l.end),l.end.copy(u)}if(a.y<a.x){let tn=a.y;a.y=a.x,a.x=tn,u.copy(c.start),c.start.copy(c.end),c.end.copy(u)}return f.y<a.x||a.y<f.x?!1:(w&&(a.x>f.x?w.start.copy(c.start):w.start.copy(l.start),a.y<f.y?w.end.copy(c.end):w.end.copy(l.end)),!0)}})();G.prototype.distanceToPoint=(function(){let s=new M;return function(e){return this.closestPointToPoint(e,s),e.distanceTo(s)}})();G.prototype.distanceToTriangle=(function(){let s=new M,t=new M,e=["a","b","c"],n=new lt,i=new lt;return function(o,l=null,c=null){let u=l||c?n:null;if(this.intersectsTriangle(o,u,!0))return(l||c)&&(l&&u.getCenter(l),c&&u.getCenter(c)),0;let f=1/0;for(let a=0;a<3;a++){let d,p=e[a],m=o[p];this.closestPointToPoint(m,s),d=m.distanceToSquared(s),d<f&&(f=d,l&&l.copy(s),c&&c.copy(m));let g=this[p];o.closestPointToPoint(g,s),d=g.distanceToSquared(s),d<f&&(f=d,l&&l.copy(g),c&&c.copy(s))}for(let a=0;a<3;a++){let d=e[a],p=e[(a+1)%3];n.set(this[d],this[p]);for(let m=0;m<3;m++){let g=e[m],v=e[(m+1)%3];i.set(o[g],o[v]),Zn(n,i,s,t);let b=s.distanceToSquared(t);b<f&&(f=b,l&&l.copy(s),c&&c.copy(t))}}return Math.sqrt(f)}})();var Y=class{constructor(t,e,n){this.isOrientedBox=!0,this.min=new M,this.max=new M,this.matrix=new q,this.invMatrix=new q,this.points=new Array(8).fill().map(()=>new M),this.satAxes=new Array(3).fill().map(()=>new M),this.satBounds=new Array(3).fill().map(()=>new rt),this.alignedSatBounds=new Array(3).fill().map(()=>new rt),this.needsUpdate=!1,t&&this.min.copy(t),e&&this.max.copy(e),n&&this.matrix.copy(n)}set(t,e,n){this.min.copy(t),this.max.copy(e),this.matrix.copy(n),this.needsUpdate=!0}copy(t){this.min.copy(t.min),this.max.copy(t.max),this.matrix.copy(t.matrix),this.needsUpdate=!0}};Y.prototype.update=(function(){return function(){let t=this.matrix,e=this.min,n=this.max,i=this.points;for(let u=0;u<=1;u++)for(let f=0;f<=1;f++)for(let a=0;a<=1;a++){let d=1*u|2*f|4*a,p=i[d];p.x=u?n.x:e.x,p.y=f?n.y:e.y,p.z=a?n.z:e.z,p.applyMatrix4(t)}let r=this.satBounds,o=this.satAxes,l=i[0];for(let u=0;u<3;u++){let f=o[u],a=r[u],d=1<<u,p=i[d];f.subVectors(l,p),a.setFromPoints(f,i)}let c=this.alignedSatBounds;c[0].setFromPointsField(i,"x"),c[1].setFromPointsField(i,"y"),c[2].setFromPointsField(i,"z"),this.invMatrix.copy(this.matrix).invert(),this.needsUpdate=!1}})();Y.prototype.intersectsBox=(function(){let s=new rt;return function(e){this.needsUpdate&&this.update();let n=e.min,i=e.max,r=this.satBounds,o=this.satAxes,l=this.alignedSatBounds;if(s.min=n.x,s.max=i.x,l[0].isSeparated(s)||(s.min=n.y,s.max=i.y,l[1].isSeparated(s))||(s.min=n.z,s.max=i.z,l[2].isSeparated(s)))return!1;for(let c=0;c<3;c++){let u=o[c],f=r[c];if(s.setFromBox(u,e),f.isSeparated(s))return!1}return!0}})();Y.prototype.intersectsTriangle=(function(){let s=new G,t=new Array(3),e=new rt,n=new rt,i=new M;return function(o){this.needsUpdate&&this.update(),o.isExtendedTriangle?o.needsUpdate&&o.update():(s.copy(o),s.update(),o=s);let l=this.satBounds,c=this.satAxes;t[0]=o.a,t[1]=o.b,t[2]=o.c;for(let d=0;d<3;d++){let p=l[d],m=c[d];if(e.setFromPoints(m,t),p.isSeparated(e))return!1}let u=o.satBounds,f=o.satAxes,a=this.points;for(let d=0;d<3;d++){let p=u[d],m=f[d];if(e.setFromPoints(m,a),p.isSeparated(e))return!1}for(let d=0;d<3;d++){let p=c[d];for(let m=0;m<4;m++){let g=f[m];if(i.crossVectors(p,g),e.setFromPoints(i,t),n.setFromPoints(i,a),e.isSeparated(n))return!1}}return!0}})();Y.prototype.closestPointToPoint=(function(){return function(t,e){return this.needsUpdate&&this.update(),e.copy(t).applyMatrix4(this.invMatrix).clamp(this.min,this.max).applyMatrix4(this.matrix),e}})();Y.prototype.distanceToPoint=(function(){let s=new M;return function(e){return this.closestPointToPoint(e,s),e.distanceTo(s)}})();Y.prototype.distanceToBox=(function(){let s=["x","y","z"],t=new Array(12).fill().map(()=>new lt),e=new Array(12).fill().map(()=>new lt),n=new M,i=new M;return function(o,l=0,c=null,u=null){if(this.needsUpdate&&this.update(),this.intersectsBox(o))return(c||u)&&(o.getCenter(i),this.closestPointToPoint(i,n),o.closestPointToPoint(n,i),c&&c.copy(n),u&&u.copy(i)),0;let f=l*l,a=o.min,d=o.max,p=this.points,m=1/0;for(let v=0;v<8;v++){let b=p[v];i.copy(b).clamp(a,d);let h=b.distanceToSquared(i);if(h<m&&(m=h,c&&c.copy(b),u&&u.copy(i),h<f))return Math.sqrt(h)}let g=0;for(let v=0;v<3;v++)for(let b=0;b<=1;b++)for(let h=0;h<=1;h++){let y=(v+1)%3,x=(v+2)%3,w=b<<y|h<<x,_=1<<v|b<<y|h<<x,A=p[w],P=p[_];t[g].set(A,P);let T=s[v],S=s[y],B=s[x],D=e[g],z=D.start,E=D.end;z[T]=a[T],z[S]=b?a[S]:d[S],z[B]=h?a[B]:d[B],E[T]=d[T],E[S]=b?a[S]:d[S],E[B]=h?a[B]:d[B],g++}for(let v=0;v<=1;v++)for(let b=0;b<=1;b++)for(let h=0;h<=1;h++){i.x=v?d.x:a.x,i.y=b?d.y:a.y,i.z=h?d.z:a.z,this.closestPointToPoint(i,n);let y=i.distanceToSquared(n);if(y<m&&(m=y,c&&c.copy(n),u&&u.copy(i),y<f))return Math.sqrt(y)}for(let v=0;v<12;v++){let b=t[v];for(let h=0;h<12;h++){let y=e[h];Zn(b,y,n,i);let x=n.distanceToSquared(i);if(x<m&&(m=x,c&&c.copy(n),u&&u.copy(i),x<f))return Math.sqrt(x)}}return Math.sqrt(m)}})();var Mn=class extends St{constructor(){super(()=>new G)}},et=new Mn,Kt=new M,ln=new M;function Qs(s,t,e={},n=0,i=1/0){let r=n*n,o=i*i,l=1/0,c=null;if(s.shapecast({boundsTraverseOrder:f=>(Kt.copy(t).clamp(f.min,f.max),Kt.distanceToSquared(t)),intersectsBounds:(f,a,d)=>d<l&&d<o,intersectsTriangle:(f,a)=>{f.closestPointToPoint(t,Kt);let d=t.distanceToSquared(Kt);return d<l&&(ln.copy(Kt),l=d,c=a),d<r}}),l===1/0)return null;let u=Math.sqrt(l);return e.point?e.point.copy(ln):e.point=ln.clone(),e.distance=u,e.faceIndex=c,e}var be=parseInt(he)>=169,to=parseInt(he)<=161,vt=new M,bt=new M,wt=new M,we=new X,Ae=new X,Be=new X,oi=new M,ri=new M,ci=new M,jt=new M;function eo(s,t,e,n,i,r,o,l){let c;if(r===Qi?c=s.intersectTriangle(n,e,t,!0,i):c=s.intersectTriangle(t,e,n,r!==As,i),c===null)return null;let u=s.origin.distanceTo(i);return u<o||u>l?null:{distance:u,point:i.clone()}}function ai(s,t,e,n,i,r,o,l,c,u,f){vt.fromBufferAttribute(t,r),bt.fromBufferAttribute(t,o),wt.fromBufferAttribute(t,l);let a=eo(s,vt,bt,wt,jt,c,u,f);if(a){if(n){we.fromBufferAttribute(n,r),Ae.fromBufferAttribute(n,o),Be.fromBufferAttribute(n,l),a.uv=new X;let p=K.getInterpolation(jt,vt,bt,wt,we,Ae,Be,a.uv);be||(a.uv=p)}if(i){we.fromBufferAttribute(i,r),Ae.fromBufferAttribute(i,o),Be.fromBufferAttribute(i,l),a.uv1=new X;let p=K.getInterpolation(jt,vt,bt,wt,we,Ae,Be,a.uv1);be||(a.uv1=p),to&&(a.uv2=a.uv1)}if(e){oi.fromBufferAttribute(e,r),ri.fromBufferAttribute(e,o),ci.fromBufferAttribute(e,l),a.normal=new M;let p=K.getInterpolation(jt,vt,bt,wt,oi,ri,ci,a.normal);a.normal.dot(s.direction)>0&&a.normal.multiplyScalar(-1),be||(a.normal=p)}let d={a:r,b:o,c:l,normal:new M,materialIndex:0};if(K.getNormal(vt,bt,wt,d.normal),a.face=d,a.faceIndex=r,be){let p=new M;K.getBarycoord(jt,vt,bt,wt,p),a.barycoord=p}}return a}function li(s){return s&&s.isMaterial?s.side:s}function je(s,t,e,n,i,r,o){let l=n*3,c=l+0,u=l+1,f=l+2,{index:a,groups:d}=s;s.index&&(c=a.getX(c),u=a.getX(u),f=a.getX(f));let{position:p,normal:m,uv:g,uv1:v}=s.attributes;if(Array.isArray(t)){let b=n*3;for(let h=0,y=d.length;h<y;h++){let{start:x,count:w,materialIndex:_}=d[h];if(b>=x&&b<x+w){let A=li(t[_]),P=ai(e,p,m,g,v,c,u,f,A,r,o);if(P)if(P.faceIndex=n,P.face.materialIndex=_,i)i.push(P);else return P}}}else{let b=li(t),h=ai(e,p,m,g,v,c,u,f,b,r,o);if(h)if(h.faceIndex=n,h.face.materialIndex=0,i)i.push(h);else return h}return null}function V(s,t,e,n){let i=s.a,r=s.b,o=s.c,l=t,c=t+1,u=t+2;e&&(l=e.getX(l),c=e.getX(c),u=e.getX(u)),i.x=n.getX(l),i.y=n.getY(l),i.z=n.getZ(l),r.x=n.getX(c),r.y=n.getY(c),r.z=n.getZ(c),o.x=n.getX(u),o.y=n.getY(u),o.z=n.getZ(u)}var Gt=new M,Jt=new M,Qt=new M,ui=new X,fi=new X,di=new X;function Ko(s,t,e,n){let i=t.getIndex().array,r=t.getAttribute("position"),o=t.getAttribute("uv"),l=i[e*3],c=i[e*3+1],u=i[e*3+2];Gt.fromBufferAttribute(r,l),Jt.fromBufferAttribute(r,c),Qt.fromBufferAttribute(r,u);let f=0,a=t.groups,d=e*3;for(let g=0,v=a.length;g<v;g++){let b=a[g],{start:h,count:y}=b;if(d>=h&&d<h+y){f=b.materialIndex;break}}let p=n&&n.barycoord?n.barycoord:new M;K.getBarycoord(s,Gt,Jt,Qt,p);let m=null;return o&&(ui.fromBufferAttribute(o,l),fi.fromBufferAttribute(o,c),di.fromBufferAttribute(o,u),n&&n.uv?m=n.uv:m=new X,K.getInterpolation(s,Gt,Jt,Qt,ui,fi,di,m)),n?(n.face||(n.face={}),n.face.a=l,n.face.b=c,n.face.c=u,n.face.materialIndex=f,n.face.normal||(n.face.normal=new M),K.getNormal(Gt,Jt,Qt,n.face.normal),m&&(n.uv=m),n.barycoord=p,n):{face:{a:l,b:c,c:u,materialIndex:f,normal:K.getNormal(Gt,Jt,Qt,new M)},uv:m,barycoord:p}}function no(s,t,e,n,i,r,o,l){let{geometry:c,_indirectBuffer:u}=s;for(let f=n,a=n+i;f<a;f++)je(c,t,e,f,r,o,l)}function io(s,t,e,n,i,r,o){let{geometry:l,_indirectBuffer:c}=s,u=1/0,f=null;for(let a=n,d=n+i;a<d;a++){let p;p=je(l,t,e,a,null,r,o),p&&p.distance<u&&(f=p,u=p.distance)}return f}function so(s,t,e,n,i,r,o){let{geometry:l}=e,{index:c}=l,u=l.attributes.position;for(let f=s,a=t+s;f<a;f++){let d;if(d=f,V(o,d*3,c,u),o.needsUpdate=!0,n(o,d,i,r))return!0}return!1}function oo(s,t=null){t&&Array.isArray(t)&&(t=new Set(t));let e=s.geometry,n=e.index?e.index.array:null,i=e.attributes.position,r,o,l,c,u=0,f=s._roots;for(let d=0,p=f.length;d<p;d++)r=f[d],o=new Uint32Array(r),l=new Uint16Array(r),c=new Float32Array(r),a(0,u),u+=r.byteLength;function a(d,p,m=!1){let g=d*2;if(N(g,l)){let v=U(d,o),b=$(g,l),h=1/0,y=1/0,x=1/0,w=-1/0,_=-1/0,A=-1/0;for(let P=3*v,I=3*(v+b);P<I;P++){let T=n[P],S=i.getX(T),B=i.getY(T),D=i.getZ(T);S<h&&(h=S),S>w&&(w=S),B<y&&(y=B),B>_&&(_=B),D<x&&(x=D),D>A&&(A=D)}return c[d+0]!==h||c[d+1]!==y||c[d+2]!==x||c[d+3]!==w||c[d+4]!==_||c[d+5]!==A?(c[d+0]=h,c[d+1]=y,c[d+2]=x,c[d+3]=w,c[d+4]=_,c[d+5]=A,!0):!1}else{let v=k(d),b=H(d,o),h=m,y=!1,x=!1;if(t){if(!h){let T=v/L+p/j,S=b/L+p/j;y=t.has(T),x=t.has(S),h=!y&&!x}}else y=!0,x=!0;let w=h||y,_=h||x,A=!1;w&&(A=a(v,p,h));let P=!1;_&&(P=a(b,p,h));let I=A||P;if(I)for(let T=0;T<3;T++){let S=v+T,B=b+T,D=c[S],z=c[S+3],E=c[B],R=c[B+3];c[d+T]=D<E?D:E,c[d+T+3]=z>R?z:R}return I}}}function it(s,t,e,n,i){let r,o,l,c,u,f,a=1/e.direction.x,d=1/e.direction.y,p=1/e.direction.z,m=e.origin.x,g=e.origin.y,v=e.origin.z,b=t[s],h=t[s+3],y=t[s+1],x=t[s+3+1],w=t[s+2],_=t[s+3+2];return a>=0?(r=(b-m)*a,o=(h-m)*a):(r=(h-m)*a,o=(b-m)*a),d>=0?(l=(y-g)*d,c=(x-g)*d):(l=(x-g)*d,c=(y-g)*d),r>c||l>o||((l>r||isNaN(r))&&(r=l),(c<o||isNaN(o))&&(o=c),p>=0?(u=(w-v)*p,f=(_-v)*p):(u=(_-v)*p,f=(w-v)*p),r>f||u>o)?!1:((u>r||r!==r)&&(r=u),(f<o||o!==o)&&(o=f),r<=i&&o>=n)}function ro(s,t,e,n,i,r,o,l){let{geometry:c,_indirectBuffer:u}=s;for(let f=n,a=n+i;f<a;f++){let d=u?u[f]:f;je(c,t,e,d,r,o,l)}}function co(s,t,e,n,i,r,o){let{geometry:l,_indirectBuffer:c}=s,u=1/0,f=null;for(let a=n,d=n+i;a<d;a++){let p;p=je(l,t,e,c?c[a]:a,null,r,o),p&&p.distance<u&&(f=p,u=p.distance)}return f}function ao(s,t,e,n,i,r,o){let{geometry:l}=e,{index:c}=l,u=l.attributes.position;for(let f=s,a=t+s;f<a;f++){let d;if(d=e.resolveTriangleIndex(f),V(o,d*3,c,u),o.needsUpdate=!0,n(o,d,i,r))return!0}return!1}function lo(s,t,e,n,i,r,o){F.setBuffer(s._roots[t]),it(0,F.float32Array,n,r,o)&&Dn(0,s,e,n,i,r,o),F.clearBuffer()}function Dn(s,t,e,n,i,r,o){let{float32Array:l,uint16Array:c,uint32Array:u}=F,f=s*2;if(N(f,c)){let d=U(s,u),p=$(f,c);no(t,e,n,d,p,i,r,o)}else{let d=k(s);it(d,l,n,r,o)&&Dn(d,t,e,n,i,r,o);let p=H(s,u);it(p,l,n,r,o)&&Dn(p,t,e,n,i,r,o)}}var uo=["x","y","z"];function fo(s,t,e,n,i,r){F.setBuffer(s._roots[t]);let o=null;return it(0,F.float32Array,n,i,r)&&(o=zn(0,s,e,n,i,r)),F.clearBuffer(),o}function zn(s,t,e,n,i,r){let{float32Array:o,uint16Array:l,uint32Array:c}=F,u=s*2;if(N(u,l)){let a=U(s,c),d=$(u,l);return io(t,e,n,a,d,i,r)}else{let a=Ye(s,c),d=uo[a],m=n.direction[d]>=0,g,v;m?(g=k(s),v=H(s,c)):(g=H(s,c),v=k(s));let h=it(g,o,n,i,r)?zn(g,t,e,n,i,r):null;if(h){let w=h.point[d];if(m?w<=o[v+a]:w>=o[v+a+3])return h}let x=it(v,o,n,i,r)?zn(v,t,e,n,i,r):null;return h&&x?h.distance<=x.distance?h:x:h||x||null}}var Te=new Z,Nt=new G,Lt=new G,te=new q,pi=new Y,Pe=new Y;function po(s,t,e,n){F.setBuffer(s._roots[t]);let i=En(0,s,e,n);return F.clearBuffer(),i}function En(s,t,e,n,i=null){let{float32Array:r,uint16Array:o,uint32Array:l}=F,c=s*2;if(i===null&&(e.boundingBox||e.computeBoundingBox(),pi.set(e.boundingBox.min,e.boundingBox.max,n),i=pi),N(c,o)){let f=t.geometry,a=f.index,d=f.attributes.position,p=e.index,m=e.attributes.position,g=U(s,l),v=$(c,o);if(te.copy(n).invert(),e.boundsTree)return C(s,r,Pe),Pe.matrix.copy(te),Pe.needsUpdate=!0,e.boundsTree.shapecast({intersectsBounds:h=>Pe.intersectsBox(h),intersectsTriangle:h=>{h.a.applyMatrix4(n),h.b.applyMatrix4(n),h.c.applyMatrix4(n),h.needsUpdate=!0;for(let y=g*3,x=(v+g)*3;y<x;y+=3)if(V(Lt,y,a,d),Lt.needsUpdate=!0,h.intersectsTriangle(Lt))return!0;return!1}});{let b=Ke(e);for(let h=g*3,y=(v+g)*3;h<y;h+=3){V(Nt,h,a,d),Nt.a.applyMatrix4(te),Nt.b.applyMatrix4(te),Nt.c.applyMatrix4(te),Nt.needsUpdate=!0;for(let x=0,w=b*3;x<w;x+=3)if(V(Lt,x,p,m),Lt.needsUpdate=!0,Nt.intersectsTriangle(Lt))return!0}}}else{let f=k(s),a=H(s,l);return C(f,r,Te),!!(i.intersectsBox(Te)&&En(f,t,e,n,i)||(C(a,r,Te),i.intersectsBox(Te)&&En(a,t,e,n,i)))}}var _e=new q,un=new Y,ee=new Y,ho=new M,mo=new M,yo=new M,xo=new M;function go(s,t,e,n={},i={},r=0,o=1/0){t.boundingBox||t.computeBoundingBox(),un.set(t.boundingBox.min,t.boundingBox.max,e),un.needsUpdate=!0;let l=s.geometry,c=l.attributes.position,u=l.index,f=t.attributes.position,a=t.index,d=et.getPrimitive(),p=et.getPrimitive(),m=ho,g=mo,v=null,b=null;i&&(v=yo,b=xo);let h=1/0,y=null,x=null;return _e.copy(e).invert(),ee.matrix.copy(_e),s.shapecast({boundsTraverseOrder:w=>un.distanceToBox(w),intersectsBounds:(w,_,A)=>A<h&&A<o?(_&&(ee.min.copy(w.min),ee.max.copy(w.max),ee.needsUpdate=!0),!0):!1,intersectsRange:(w,_)=>{if(t.boundsTree)return t.boundsTree.shapecast({boundsTraverseOrder:P=>ee.distanceToBox(P),intersectsBounds:(P,I,T)=>T<h&&T<o,intersectsRange:(P,I)=>{for(let T=P,S=P+I;T<S;T++){V(p,3*T,a,f),p.a.applyMatrix4(e),p.b.applyMatrix4(e),p.c.applyMatrix4(e),p.needsUpdate=!0;for(let B=w,D=w+_;B<D;B++){V(d,3*B,u,c),d.needsUpdate=!0;let z=d.distanceToTriangle(p,m,v);if(z<h&&(g.copy(m),b&&b.copy(v),h=z,y=B,x=T),z<r)return!0}}}});{let A=Ke(t);for(let P=0,I=A;P<I;P++){V(p,3*P,a,f),p.a.applyMatrix4(e),p.b.applyMatrix4(e),p.c.applyMatrix4(e),p.needsUpdate=!0;for(let T=w,S=w+_;T<S;T++){V(d,3*T,u,c),d.needsUpdate=!0;let B=d.distanceToTriangle(p,m,v);if(B<h&&(g.copy(m),b&&b.copy(v),h=B,y=T,x=P),B<r)return!0}}}}}),et.releasePrimitive(d),et.releasePrimitive(p),h===1/0?null:(n.point?n.point.copy(g):n.point=g.clone(),n.distance=h,n.faceIndex=y,i&&(i.point?i.point.copy(b):i.point=b.clone(),i.point.applyMatrix4(_e),g.applyMatrix4(_e),i.distance=g.sub(i.point).length(),i.faceIndex=x),n)}function vo(s,t=null){t&&Array.isArray(t)&&(t=new Set(t));let e=s.geometry,n=e.index?e.index.array:null,i=e.attributes.position,r,o,l,c,u=0,f=s._roots;for(let d=0,p=f.length;d<p;d++)r=f[d],o=new Uint32Array(r),l=new Uint16Array(r),c=new Float32Array(r),a(0,u),u+=r.byteLength;function a(d,p,m=!1){let g=d*2;if(N(g,l)){let v=U(d,o),b=$(g,l),h=1/0,y=1/0,x=1/0,w=-1/0,_=-1/0,A=-1/0;for(let P=v,I=v+b;P<I;P++){let T=3*s.resolveTriangleIndex(P);for(let S=0;S<3;S++){let B=T+S;B=n?n[B]:B;let D=i.getX(B),z=i.getY(B),E=i.getZ(B);D<h&&(h=D),D>w&&(w=D),z<y&&(y=z),z>_&&(_=z),E<x&&(x=E),E>A&&(A=E)}}return c[d+0]!==h||c[d+1]!==y||c[d+2]!==x||c[d+3]!==w||c[d+4]!==_||c[d+5]!==A?(c[d+0]=h,c[d+1]=y,c[d+2]=x,c[d+3]=w,c[d+4]=_,c[d+5]=A,!0):!1}else{let v=k(d),b=H(d,o),h=m,y=!1,x=!1;if(t){if(!h){let T=v/L+p/j,S=b/L+p/j;y=t.has(T),x=t.has(S),h=!y&&!x}}else y=!0,x=!0;let w=h||y,_=h||x,A=!1;w&&(A=a(v,p,h));let P=!1;_&&(P=a(b,p,h));let I=A||P;if(I)for(let T=0;T<3;T++){let S=v+T,B=b+T,D=c[S],z=c[S+3],E=c[B],R=c[B+3];c[d+T]=D<E?D:E,c[d+T+3]=z>R?z:R}return I}}}function bo(s,t,e,n,i,r,o){F.setBuffer(s._roots[t]),it(0,F.float32Array,n,r,o)&&Fn(0,s,e,n,i,r,o),F.clearBuffer()}function Fn(s,t,e,n,i,r,o){let{float32Array:l,uint16Array:c,uint32Array:u}=F,f=s*2;if(N(f,c)){let d=U(s,u),p=$(f,c);ro(t,e,n,d,p,i,r,o)}else{let d=k(s);it(d,l,n,r,o)&&Fn(d,t,e,n,i,r,o);let p=H(s,u);it(p,l,n,r,o)&&Fn(p,t,e,n,i,r,o)}}var wo=["x","y","z"];function Ao(s,t,e,n,i,r){F.setBuffer(s._roots[t]);let o=null;return it(0,F.float32Array,n,i,r)&&(o=Rn(0,s,e,n,i,r)),F.clearBuffer(),o}function Rn(s,t,e,n,i,r){let{float32Array:o,uint16Array:l,uint32Array:c}=F,u=s*2;if(N(u,l)){let a=U(s,c),d=$(u,l);return co(t,e,n,a,d,i,r)}else{let a=Ye(s,c),d=wo[a],m=n.direction[d]>=0,g,v;m?(g=k(s),v=H(s,c)):(g=H(s,c),v=k(s));let h=it(g,o,n,i,r)?Rn(g,t,e,n,i,r):null;if(h){let w=h.point[d];if(m?w<=o[v+a]:w>=o[v+a+3])return h}let x=it(v,o,n,i,r)?Rn(v,t,e,n,i,r):null;return h&&x?h.distance<=x.distance?h:x:h||x||null}}var Ie=new Z,Vt=new G,Ut=new G,ne=new q,hi=new Y,Se=new Y;function Bo(s,t,e,n){F.setBuffer(s._roots[t]);let i=Cn(0,s,e,n);return F.clearBuffer(),i}function Cn(s,t,e,n,i=null){let{float32Array:r,uint16Array:o,uint32Array:l}=F,c=s*2;if(i===null&&(e.boundingBox||e.computeBoundingBox(),hi.set(e.boundingBox.min,e.boundingBox.max,n),i=hi),N(c,o)){let f=t.geometry,a=f.index,d=f.attributes.position,p=e.index,m=e.attributes.position,g=U(s,l),v=$(c,o);if(ne.copy(n).invert(),e.boundsTree)return C(s,r,Se),Se.matrix.copy(ne),Se.needsUpdate=!0,e.boundsTree.shapecast({intersectsBounds:h=>Se.intersectsBox(h),intersectsTriangle:h=>{h.a.applyMatrix4(n),h.b.applyMatrix4(n),h.c.applyMatrix4(n),h.needsUpdate=!0;for(let y=g,x=v+g;y<x;y++)if(V(Ut,3*t.resolveTriangleIndex(y),a,d),Ut.needsUpdate=!0,h.intersectsTriangle(Ut))return!0;return!1}});{let b=Ke(e);for(let h=g,y=v+g;h<y;h++){let x=t.resolveTriangleIndex(h);V(Vt,3*x,a,d),Vt.a.applyMatrix4(ne),Vt.b.applyMatrix4(ne),Vt.c.applyMatrix4(ne),Vt.needsUpdate=!0;for(let w=0,_=b*3;w<_;w+=3)if(V(Ut,w,p,m),Ut.needsUpdate=!0,Vt.intersectsTriangle(Ut))return!0}}}else{let f=k(s),a=H(s,l);return C(f,r,Ie),!!(i.intersectsBox(Ie)&&Cn(f,t,e,n,i)||(C(a,r,Ie),i.intersectsBox(Ie)&&Cn(a,t,e,n,i)))}}var Me=new q,fn=new Y,ie=new Y,To=new M,Po=new M,_o=new M,Io=new M;function So(s,t,e,n={},i={},r=0,o=1/0){t.boundingBox||t.computeBoundingBox(),fn.set(t.boundingBox.min,t.boundingBox.max,e),fn.needsUpdate=!0;let l=s.geometry,c=l.attributes.position,u=l.index,f=t.attributes.position,a=t.index,d=et.getPrimitive(),p=et.getPrimitive(),m=To,g=Po,v=null,b=null;i&&(v=_o,b=Io);let h=1/0,y=null,x=null;return Me.copy(e).invert(),ie.matrix.copy(Me),s.shapecast({boundsTraverseOrder:w=>fn.distanceToBox(w),intersectsBounds:(w,_,A)=>A<h&&A<o?(_&&(ie.min.copy(w.min),ie.max.copy(w.max),ie.needsUpdate=!0),!0):!1,intersectsRange:(w,_)=>{if(t.boundsTree){let A=t.boundsTree;return A.shapecast({boundsTraverseOrder:P=>ie.distanceToBox(P),intersectsBounds:(P,I,T)=>T<h&&T<o,intersectsRange:(P,I)=>{for(let T=P,S=P+I;T<S;T++){let B=A.resolveTriangleIndex(T);V(p,3*B,a,f),p.a.applyMatrix4(e),p.b.applyMatrix4(e),p.c.applyMatrix4(e),p.needsUpdate=!0;for(let D=w,z=w+_;D<z;D++){let E=s.resolveTriangleIndex(D);V(d,3*E,u,c),d.needsUpdate=!0;let R=d.distanceToTriangle(p,m,v);if(R<h&&(g.copy(m),b&&b.copy(v),h=R,y=D,x=T),R<r)return!0}}}})}else{let A=Ke(t);for(let P=0,I=A;P<I;P++){V(p,3*P,a,f),p.a.applyMatrix4(e),p.b.applyMatrix4(e),p.c.applyMatrix4(e),p.needsUpdate=!0;for(let T=w,S=w+_;T<S;T++){let B=s.resolveTriangleIndex(T);V(d,3*B,u,c),d.needsUpdate=!0;let D=d.distanceToTriangle(p,m,v);if(D<h&&(g.copy(m),b&&b.copy(v),h=D,y=T,x=P),D<r)return!0}}}}}),et.releasePrimitive(d),et.releasePrimitive(p),h===1/0?null:(n.point?n.point.copy(g):n.point=g.clone(),n.distance=h,n.faceIndex=y,i&&(i.point?i.point.copy(b):i.point=b.clone(),i.point.applyMatrix4(Me),g.applyMatrix4(Me),i.distance=g.sub(i.point).length(),i.faceIndex=x),n)}function mi(s,t,e){return s===null?null:(s.point.applyMatrix4(t.matrixWorld),s.distance=s.point.distanceTo(e.ray.origin),s.object=t,s)}var De=new Y,ze=new me,yi=new M,xi=new q,gi=new M,dn=["getX","getY","getZ"],Xt=class s extends $t{static serialize(t,e={}){e={cloneBuffers:!0,...e};let n=t.geometry,i=t._roots,r=t._indirectBuffer,o=n.getIndex(),l={version:1,roots:null,index:null,indirectBuffer:null};return e.cloneBuffers?(l.roots=i.map(c=>c.slice()),l.index=o?o.array.slice():null,l.indirectBuffer=r?r.slice():null):(l.roots=i,l.index=o?o.array:null,l.indirectBuffer=r),l}static deserialize(t,e,n={}){n={setIndex:!0,indirect:!!t.indirectBuffer,...n};let{index:i,roots:r,indirectBuffer:o}=t;t.version||(console.warn("MeshBVH.deserialize: Serialization format has been changed and will be fixed up. It is recommended to regenerate any stored serialized data."),c(r));let l=new s(e,{...n,[de]:!0});if(l._roots=r,l._indirectBuffer=o||null,n.setIndex){let u=e.getIndex();if(u===null){let f=new xt(t.index,1,!1);e.setIndex(f)}else u.array!==i&&(u.array.set(i),u.needsUpdate=!0)}return l;function c(u){for(let f=0;f<u.length;f++){let a=u[f],d=new Uint32Array(a),p=new Uint16Array(a);for(let m=0,g=a.byteLength/j;m<g;m++){let v=L*m,b=2*v;N(b,p)||(d[v+6]=d[v+6]/L-m)}}}}get primitiveStride(){return 3}get resolveTriangleIndex(){return this.resolvePrimitiveIndex}constructor(t,e={}){e.maxLeafTris&&(console.warn('MeshBVH: "maxLeafTris" option has been deprecated. Use "targetLeafSize", instead.'),e={...e,targetLeafSize:e.maxLeafTris}),super(t,e)}shiftTriangleOffsets(t){return super.shiftPrimitiveOffsets(t)}writePrimitiveBounds(t,e,n){let i=this.geometry,r=this._indirectBuffer,o=i.attributes.position,l=i.index?i.index.array:null,u=(r?r[t]:t)*3,f=u+0,a=u+1,d=u+2;l&&(f=l[f],a=l[a],d=l[d]);for(let p=0;p<3;p++){let m=o[dn[p]](f),g=o[dn[p]](a),v=o[dn[p]](d),b=m;g<b&&(b=g),v<b&&(b=v);let h=m;g>h&&(h=g),v>h&&(h=v),e[n+p]=b,e[n+p+3]=h}return e}computePrimitiveBounds(t,e,n){let i=this.geometry,r=this._indirectBuffer,o=i.attributes.position,l=i.index?i.index.array:null,c=o.normalized;if(t<0||e+t-n.offset>n.length/6)throw new Error("MeshBVH: compute triangle bounds range is invalid.");let u=o.array,f=o.offset||0,a=3;o.isInterleavedBufferAttribute&&(a=o.data.stride);let d=["getX","getY","getZ"],p=n.offset;for(let m=t,g=t+e;m<g;m++){let b=(r?r[m]:m)*3,h=(m-p)*6,y=b+0,x=b+1,w=b+2;l&&(y=l[y],x=l[x],w=l[w]),c||(y=y*a+f,x=x*a+f,w=w*a+f);for(let _=0;_<3;_++){let A,P,I;c?(A=o[d[_]](y),P=o[d[_]](x),I=o[d[_]](w)):(A=u[y+_],P=u[x+_],I=u[w+_]);let T=A;P<T&&(T=P),I<T&&(T=I);let S=A;P>S&&(S=P),I>S&&(S=I);let B=(S-T)/2,D=_*2;n[h+D+0]=T+B,n[h+D+1]=B+(Math.abs(T)+B)*qe}}return n}raycastObject3D(t,e,n=[]){let{material:i}=t;if(i===void 0)return;xi.copy(t.matrixWorld).invert(),ze.copy(e.ray).applyMatrix4(xi),gi.setFromMatrixScale(t.matrixWorld),yi.copy(ze.direction).multiply(gi);let r=yi.length(),o=e.near/r,l=e.far/r;if(e.firstHitOnly===!0){let c=this.raycastFirst(ze,i,o,l);c=mi(c,t,e),c&&n.push(c)}else{let c=this.raycast(ze,i,o,l);for(let u=0,f=c.length;u<f;u++){let a=mi(c[u],t,e);a&&n.push(a)}}return n}refit(t=null){return(this.indirect?vo:oo)(this,t)}raycast(t,e=An,n=0,i=1/0){let r=this._roots,o=[],l=this.indirect?bo:lo;for(let c=0,u=r.length;c<u;c++)l(this,c,e,t,o,n,i);return o}raycastFirst(t,e=An,n=0,i=1/0){let r=this._roots,o=null,l=this.indirect?Ao:fo;for(let c=0,u=r.length;c<u;c++){let f=l(this,c,e,t,n,i);f!=null&&(o==null||f.distance<o.distance)&&(o=f)}return o}intersectsGeometry(t,e){let n=!1,i=this._roots,r=this.indirect?Bo:po;for(let o=0,l=i.length;o<l&&(n=r(this,o,t,e),!n);o++);return n}shapecast(t){let e=et.getPrimitive(),n=super.shapecast({...t,intersectsPrimitive:t.intersectsTriangle,scratchPrimitive:e,iterate:this.indirect?ao:so});return et.releasePrimitive(e),n}bvhcast(t,e,n){let{intersectsRanges:i,intersectsTriangles:r}=n,o=et.getPrimitive(),l=this.geometry.index,c=this.geometry.attributes.position,u=this.indirect?m=>{let g=this.resolveTriangleIndex(m);V(o,g*3,l,c)}:m=>{V(o,m*3,l,c)},f=et.getPrimitive(),a=t.geometry.index,d=t.geometry.attributes.position,p=t.indirect?m=>{let g=t.resolveTriangleIndex(m);V(f,g*3,a,d)}:m=>{V(f,m*3,a,d)};if(r){if(!(t instanceof s))throw new Error('MeshBVH: "intersectsTriangles" callback can only be used with another MeshBVH.');let m=(g,v,b,h,y,x,w,_)=>{for(let A=b,P=b+h;A<P;A++){p(A),f.a.applyMatrix4(e),f.b.applyMatrix4(e),f.c.applyMatrix4(e),f.needsUpdate=!0;for(let I=g,T=g+v;I<T;I++)if(u(I),o.needsUpdate=!0,r(o,f,I,A,y,x,w,_))return!0}return!1};if(i){let g=i;i=function(v,b,h,y,x,w,_,A){return g(v,b,h,y,x,w,_,A)?!0:m(v,b,h,y,x,w,_,A)}}else i=m}return super.bvhcast(t,e,{intersectsRanges:i})}intersectsBox(t,e){return De.set(t.min,t.max,e),De.needsUpdate=!0,this.shapecast({intersectsBounds:n=>De.intersectsBox(n),intersectsTriangle:n=>De.intersectsTriangle(n)})}intersectsSphere(t){return this.shapecast({intersectsBounds:e=>t.intersectsBox(e),intersectsTriangle:e=>e.intersectsSphere(t)})}closestPointToGeometry(t,e,n={},i={},r=0,o=1/0){return(this.indirect?So:go)(this,t,e,n,i,r,o)}closestPointToPoint(t,e={},n=0,i=1/0){return Qs(this,t,e,n,i)}},vi=new q,kt=new me,bi=new St(()=>new lt),pn=new M,wi=new M,Ee=new Z,hn=new M,Ai=["getX","getY","getZ"],Nn=class extends $t{get primitiveStride(){return 2}writePrimitiveBounds(t,e,n){let i=this._indirectBuffer,{geometry:r,primitiveStride:o}=this,l=r.attributes.position,c=r.index,u=c?c.count:l.count,a=(i?i[t]:t)*o,d=(a+1)%u;c&&(a=c.getX(a),d=c.getX(d));for(let p=0;p<3;p++){let m=l[Ai[p]](a),g=l[Ai[p]](d),v=m<g?m:g,b=m>g?m:g;e[n+p]=v,e[n+p+3]=b}return e}shapecast(t){let e=bi.getPrimitive(),n=super.shapecast({...t,intersectsPrimitive:t.intersectsLine,scratchPrimitive:e,iterate:Mo});return bi.releasePrimitive(e),n}raycastObject3D(t,e,n=[]){let{matrixWorld:i}=t,{firstHitOnly:r}=e;vi.copy(i).invert(),kt.copy(e.ray).applyMatrix4(vi);let l=e.params.Line.threshold/((t.scale.x+t.scale.y+t.scale.z)/3),c=l*l,u=null,f=1/0;return this.shapecast({boundsTraverseOrder:a=>a.distanceToPoint(kt.origin),intersectsBounds:a=>{if(Ee.copy(a).expandByScalar(l),r){if(!kt.intersectBox(Ee,hn))return nt;let d;return Ee.containsPoint(kt.origin)?d=0:(hn.applyMatrix4(i),d=e.ray.origin.distanceTo(hn)),d<f?gt:nt}else return kt.intersectsBox(Ee)?gt:nt},intersectsLine:(a,d)=>{if(kt.distanceSqToSegment(a.start,a.end,pn,wi)>c)return;pn.applyMatrix4(t.matrixWorld);let m=e.ray.origin.distanceTo(pn);m<e.near||m>e.far||r&&m>=f||(f=m,d=this.resolvePrimitiveIndex(d),u={distance:m,point:wi.clone().applyMatrix4(i),index:d*this.primitiveStride,face:null,faceIndex:null,barycoord:null,object:t},r||n.push(u))}}),r&&u&&n.push(u),n}},Ln=class extends Nn{get primitiveStride(){return 1}constructor(t,e={}){e={...e,indirect:!0},super(t,e)}},Bi=class extends Ln{getRootRanges(...t){let e=super.getRootRanges(...t);return e.forEach(n=>n.count--),e}};function Mo(s,t,e,n,i,r,o){let{geometry:l,primitiveStride:c}=e,{index:u}=l,f=l.attributes.position,a=u?u.count:f.count;for(let d=s,p=t+s;d<p;d++){let g=e.resolvePrimitiveIndex(d)*c,v=(g+1)%a;if(u&&(g=u.getX(g),v=u.getX(v)),o.start.fromBufferAttribute(f,g),o.end.fromBufferAttribute(f,v),n(o,d,i,r))return!0}return!1}var Ti=new q,At=new me,Pi=new St(()=>new M),Fe=new Z,mn=new M,_i=class extends $t{get primitiveStride(){return 1}writePrimitiveBounds(t,e,n){let i=this._indirectBuffer,{geometry:r}=this,o=r.attributes.position,l=r.index,c=i?i[t]:t;l&&(c=l.getX(c));let u=o.getX(c),f=o.getY(c),a=o.getZ(c);return e[n+0]=u,e[n+1]=f,e[n+2]=a,e[n+3]=u,e[n+4]=f,e[n+5]=a,e}shapecast(t){let e=Pi.getPrimitive(),n=super.shapecast({...t,intersectsPrimitive:t.intersectsPoint,scratchPrimitive:e,iterate:Do});return Pi.releasePrimitive(e),n}raycastObject3D(t,e,n=[]){let{geometry:i}=this,{matrixWorld:r}=t,{firstHitOnly:o}=e;Ti.copy(r).invert(),At.copy(e.ray).applyMatrix4(Ti);let c=e.params.Points.threshold/((t.scale.x+t.scale.y+t.scale.z)/3),u=c*c,f=null,a=1/0;return this.shapecast({boundsTraverseOrder:d=>d.distanceToPoint(At.origin),intersectsBounds:d=>{if(Fe.copy(d).expandByScalar(c),o){if(!At.intersectBox(Fe,mn))return nt;let p;return Fe.containsPoint(At.origin)?p=0:(mn.applyMatrix4(r),p=e.ray.origin.distanceTo(mn)),p<a?gt:nt}else return At.intersectsBox(Fe)?gt:nt},intersectsPoint:(d,p)=>{let m=At.distanceSqToPoint(d);if(m<u){let g=new M;At.closestPointToPoint(d,g),g.applyMatrix4(r);let v=e.ray.origin.distanceTo(g);if(v<e.near||v>e.far||o&&v>=a)return;a=v,p=this.resolvePrimitiveIndex(p),f={distance:v,distanceToRay:Math.sqrt(m),point:g,index:i.index?i.index.getX(p):p,face:null,faceIndex:null,barycoord:null,object:t},o||n.push(f)}}}),o&&f&&n.push(f),n}};function Do(s,t,e,n,i,r,o){let{geometry:l}=e,{index:c}=l,u=l.attributes.position;for(let f=s,a=t+s;f<a;f++){let d=e.resolvePrimitiveIndex(f),p=c?c.array[d]:d;if(o.fromBufferAttribute(u,p),n(o,f,i,r))return!0}return!1}var Q=new It,O=new q,se=new q,Ii=new Z,Ht=new ts,dt=new M,oe=new me,tt=new ye,Si={},Mi=class extends Xe{constructor(t,e={}){e={precise:!1,includeInstances:!0,matrixWorld:Array.isArray(t)?new q:t.matrixWorld,targetLeafSize:1,...e},super();let n=new Set;us(t,n);let i=Array.from(n),r=Math.ceil(Math.log2(i.length)),o=(1<<r)-1;this.objects=i,this.idBits=r,this.idMask=o,this.primitiveBuffer=null,this.primitiveBufferStride=1,this.precise=e.precise,this.includeInstances=e.includeInstances,this.matrixWorld=e.matrixWorld,this.init(e)}getObjectFromId(t){let{idMask:e,objects:n}=this,i=Vn(t,e);return n[i]}getInstanceFromId(t){let{idMask:e,idBits:n}=this;return Un(t,n,e)}init(t){let{objects:e,idBits:n,matrixWorld:i}=this;se.copy(i).invert(),this.primitiveBuffer=new Uint32Array(this._countPrimitives(e)),this._fillPrimitiveBuffer(e,n,this.primitiveBuffer),super.init(t)}refit(...t){se.copy(this.matrixWorld).invert(),super.refit(...t)}writePrimitiveBounds(t,e,n){let{primitiveBuffer:i}=this;this._getPrimitiveBoundingBox(i[t],se,Ii);let{min:r,max:o}=Ii;e[n+0]=r.x,e[n+1]=r.y,e[n+2]=r.z,e[n+3]=o.x,e[n+4]=o.y,e[n+5]=o.z}getRootRanges(){return[{offset:0,count:this.primitiveBuffer.length}]}shapecast(t){return super.shapecast({...t,intersectsPrimitive:t.intersectsObject,scratchPrimitive:null,iterate:zo})}raycast(t,e=[]){let{matrixWorld:n,includeInstances:i}=this,{firstHitOnly:r}=t,o=[];se.copy(n).invert(),oe.copy(t.ray).applyMatrix4(se);let l=1/0,c=null;return this.shapecast({boundsTraverseOrder:u=>u.distanceToPoint(oe.origin),intersectsBounds:u=>{if(r){if(!oe.intersectBox(u,dt))return nt;let f;return u.containsPoint(oe.origin)?f=0:(dt.applyMatrix4(n),f=t.ray.origin.distanceTo(dt)),f<l?gt:nt}else return oe.intersectsBox(u)?gt:nt},intersectsObject(u,f){if(u.visible){if(o.length=0,u.isInstancedMesh&&i)tt.geometry=u.geometry,tt.material=u.material,u.getMatrixAt(f,tt.matrixWorld),tt.matrixWorld.premultiply(u.matrixWorld),tt.raycast(t,o),o.forEach(a=>{a.object=u,a.instanceId=f}),tt.material=null;else if(u.isBatchedMesh&&i){if(!u.getVisibleAt(f))return;let a=u.getGeometryIdAt(f),d=u.getGeometryRangeAt(a,Si);Q.index=u.geometry.index,Q.attributes=u.geometry.attributes,Q.setDrawRange(d.start,d.count),tt.geometry=Q,tt.material=u.material,u.getMatrixAt(f,tt.matrixWorld),tt.matrixWorld.premultiply(u.matrixWorld),tt.raycast(t,o),o.forEach(p=>{p.object=u,p.batchId=f}),tt.material=null,Q.index=null,Q.attributes=null,Q.setDrawRange(0,1/0)}else u.raycast(t,o);r?o.forEach(a=>{a.distance<l&&(l=a.distance,c=a)}):e.push(...o)}}}),r&&c&&e.push(c),e}_getPrimitiveBoundingBox(t,e,n){let{objects:i,idMask:r,idBits:o,precise:l,includeInstances:c}=this,u=Vn(t,r),f=Un(t,o,r),a=i[u];if(!c&&(a.isInstancedMesh||a.isBatchedMesh))a.boundingBox||a.computeBoundingBox(),a.boundingSphere||a.computeBoundingSphere(),O.copy(a.matrixWorld).premultiply(e),Ht.copy(a.boundingSphere).applyMatrix4(O),n.copy(a.boundingBox).applyMatrix4(O),yn(n,Ht);else if(l)if(a.isInstancedMesh)a.getMatrixAt(f,O),O.premultiply(a.matrixWorld).premultiply(e),Di(a.geometry,O,n);else if(a.isBatchedMesh){let d=a.getGeometryIdAt(f),p=a.getGeometryRangeAt(d,Si);Q.index=a.geometry.index,Q.attributes=a.geometry.attributes,Q.setDrawRange(p.start,p.count),a.getMatrixAt(f,O),O.premultiply(a.matrixWorld).premultiply(e),Di(Q,O,n),Q.attributes=null}else O.copy(a.matrixWorld).premultiply(e),n.setFromObject(a,!0).applyMatrix4(e);else if(a.isInstancedMesh)a.geometry.boundingBox||a.geometry.computeBoundingBox(),a.geometry.boundingSphere||a.geometry.computeBoundingSphere(),a.getMatrixAt(f,O),O.premultiply(a.matrixWorld).premultiply(e),Ht.copy(a.geometry.boundingSphere).applyMatrix4(O),n.copy(a.geometry.boundingBox).applyMatrix4(O),yn(n,Ht);else if(a.isBatchedMesh){let d=a.getGeometryIdAt(f);a.getMatrixAt(f,O),O.premultiply(a.matrixWorld).premultiply(e),a.getBoundingSphereAt(d,Ht).applyMatrix4(O),a.getBoundingBoxAt(d,n).applyMatrix4(O),yn(n,Ht)}else n.setFromObject(a,!1).applyMatrix4(e)}_countPrimitives(t){let{includeInstances:e}=this,n=0;return t.forEach(i=>{if(i.isInstancedMesh&&e)n+=i.count;else if(i.isBatchedMesh&&e){if(!("instanceCount"in i))throw new Error("ObjectBVH: Three.js revision >= r169 is required to use BatchedMesh.");n+=i.instanceCount}else n++}),n}_fillPrimitiveBuffer(t,e,n){let{includeInstances:i}=this,r=0;t.forEach((o,l)=>{if(o.isInstancedMesh&&i){let c=o.count;for(let u=0;u<c;u++)n[r]=u<<e|l,r++}else if(o.isBatchedMesh&&i){let{instanceCount:c,maxInstanceCount:u}=o,f=0,a=0;for(;f<c&&a<u;){try{o.getVisibleAt(a),n[r]=a<<e|l,f++,r++}catch{}a++}}else n[r]=l,r++})}};function Vn(s,t){return s&t}function Un(s,t,e){return(s&~e)>>>t}function us(s,t=new Set){Array.isArray(s)?s.forEach(e=>us(e,t)):s.traverse(e=>{(e.isMesh||e.isLine||e.isPoints)&&t.add(e)})}function Di(s,t,e){e.makeEmpty();let n=s.drawRange,i=s.index,r=s.attributes.position,o=n.start,l=i?i.count:r.count,c=Math.min(l-o,n.count);for(let u=o,f=o+c;u<f;u++){let a=u;i&&(a=i.getX(a)),dt.fromBufferAttribute(r,a).applyMatrix4(t),e.expandByPoint(dt)}return e}function zo(s,t,e,n,i,r){let{primitiveBuffer:o,objects:l,idMask:c,idBits:u}=e;for(let f=s,a=t+s;f<a;f++){let d=o[f],p=Vn(d,c),m=Un(d,u,c),g=l[p];if(n(g,m,i,r))return!0}return!1}function yn(s,t){dt.copy(t.center).addScalar(-t.radius),s.min.max(dt),dt.copy(t.center).addScalar(t.radius),s.max.min(dt)}var zi=new M,Ei=new M,Fi=new M,ut=new me,Ri=new q,Bt=new M,xn=new M,Eo=["x","y","z"],Re=parseInt(he)>=169,Fo=parseInt(he)<=161,Ce=new X,Ne=new X,Le=new X,Ci=new M,Ni=new M,Li=new M,Vi=class extends $t{get primitiveStride(){return 3}constructor(t,e={}){if(!t.isMesh)throw new Error("SkinnedMeshBVH: First argument must be a Mesh.");super(t.geometry,{...e,[de]:!0}),this.mesh=t,e[de]||this.init(e)}writePrimitiveBounds(t,e,n){let{mesh:i,geometry:r}=this,o=this._indirectBuffer,l=r.index?r.index.array:null,u=(o?o[t]:t)*3,f=u+0,a=u+1,d=u+2;l&&(f=l[f],a=l[a],d=l[d]),i.getVertexPosition(f,zi),i.getVertexPosition(a,Ei),i.getVertexPosition(d,Fi);for(let p=0;p<3;p++){let m=Eo[p],g=zi[m],v=Ei[m],b=Fi[m],h=g;v<h&&(h=v),b<h&&(h=b);let y=g;v>y&&(y=v),b>y&&(y=b),e[n+p]=h,e[n+p+3]=y}return e}shapecast(t){let e=new G;return super.shapecast({...t,intersectsPrimitive:t.intersectsTriangle,scratchPrimitive:e,iterate:Ro})}raycastObject3D(t,e,n=[]){let{material:i}=t;if(i===void 0)return;let{matrixWorld:r}=t,{firstHitOnly:o}=e;Ri.copy(r).invert(),ut.copy(e.ray).applyMatrix4(Ri);let l=null,c=1/0;return this.shapecast({boundsTraverseOrder:u=>u.distanceToPoint(ut.origin),intersectsBounds:u=>{if(o){if(!ut.intersectBox(u,xn))return nt;let f;return u.containsPoint(ut.origin)?f=0:(xn.applyMatrix4(r),f=e.ray.origin.distanceTo(xn)),f<c?gt:nt}else return ut.intersectsBox(u)?gt:nt},intersectsTriangle:(u,f)=>{let a=null;if(i.side===An?a=ut.intersectTriangle(u.a,u.b,u.c,!0,Bt):i.side===Qi?a=ut.intersectTriangle(u.c,u.b,u.a,!0,Bt):a=ut.intersectTriangle(u.a,u.b,u.c,!1,Bt),!a)return;a=a.clone().applyMatrix4(r);let d=e.ray.origin.distanceTo(a);if(d>=e.near&&d<=e.far){if(o&&d>=c)return;let{geometry:p}=this,{index:m}=p,g=this.resolvePrimitiveIndex(f),v=g*3,b=v+0,h=v+1,y=v+2;m&&(b=m.array[b],h=m.array[h],y=m.array[y]);let x={distance:d,point:a.clone(),object:t,uv:null,uv1:null,normal:null,face:{a:b,b:h,c:y,normal:K.getNormal(u.a,u.b,u.c,new M),materialIndex:0},faceIndex:g};if(Re){let P=new M;K.getBarycoord(Bt,u.a,u.b,u.c,P),x.barycoord=P}let w=p.attributes.uv,_=p.attributes.uv1,A=p.attributes.normal;if(w){Ce.fromBufferAttribute(w,b),Ne.fromBufferAttribute(w,h),Le.fromBufferAttribute(w,y),x.uv=new X;let P=K.getInterpolation(Bt,u.a,u.b,u.c,Ce,Ne,Le,x.uv);Re||(x.uv=P)}if(_){Ce.fromBufferAttribute(_,b),Ne.fromBufferAttribute(_,h),Le.fromBufferAttribute(_,y),x.uv1=new X;let P=K.getInterpolation(Bt,u.a,u.b,u.c,Ce,Ne,Le,x.uv1);Re||(x.uv1=P),Fo&&(x.uv2=x.uv1)}if(A){Ci.fromBufferAttribute(A,b),Ni.fromBufferAttribute(A,h),Li.fromBufferAttribute(A,y),x.normal=new M;let P=K.getInterpolation(Bt,u.a,u.b,u.c,Ci,Ni,Li,x.normal);x.normal.dot(ut.direction)>0&&x.normal.multiplyScalar(-1),Re||(x.normal=P)}c=x.distance,l=x,o||n.push(x)}}}),o&&l&&n.push(l),n}};function Ro(s,t,e,n,i,r,o){let{mesh:l,geometry:c}=e,u=c.index?c.index.array:null;for(let f=s,a=t+s;f<a;f++){let d=e.resolvePrimitiveIndex(f),p=3*d+0,m=3*d+1,g=3*d+2;if(u&&(p=u[p],m=u[m],g=u[g]),l.getVertexPosition(p,o.a),l.getVertexPosition(m,o.b),l.getVertexPosition(g,o.c),o.needsUpdate=!0,n(o,f,i,r))return!0}return!1}var Ui=new Z,ki=new q,gn=new M,kn=class extends Bs{get isMesh(){return!this.displayEdges}get isLineSegments(){return this.displayEdges}get isLine(){return this.displayEdges}getVertexPosition(...t){return ye.prototype.getVertexPosition.call(this,...t)}constructor(t,e,n=10,i=0){super(),this.material=e,this.geometry=new It,this.name="BVHRootHelper",this.depth=n,this.displayParents=!1,this.bvh=t,this.displayEdges=!0,this._group=i}raycast(){}intersectsFrustum(t){return t.intersectsObject(this)}update(){let t=this.bvh;this.geometry.dispose(),this.visible=!1,t&&(this.geometry=this.getGeometry(t),this.visible=!0)}getGeometry(t){let e=this._group,n=null;if(e!==-1)n=this.getBVHBoundPositions(t,e);else{let o=t._roots.map((u,f)=>this.getBVHBoundPositions(t,f)),l=o.reduce((u,f)=>u+f.length,0);n=new Float32Array(l);let c=0;o.forEach(u=>{n.set(u,c),c+=u.length})}let i=this.getBVHBoundIndices(n),r=new It;return r.setIndex(new xt(i,1,!1)),r.setAttribute("position",new xt(n,3,!1)),r}getBVHBoundIndices(t){let e=t.length/24,n,i;this.displayEdges?i=new Uint8Array([0,4,1,5,2,6,3,7,0,2,1,3,4,6,5,7,0,1,2,3,4,5,6,7]):i=new Uint8Array([0,1,2,2,1,3,4,6,5,6,7,5,1,4,5,0,4,1,2,3,6,3,7,6,0,2,4,2,6,4,1,5,3,3,5,7]),t.length>65535?n=new Uint32Array(i.length*e):n=new Uint16Array(i.length*e);let r=i.length;for(let o=0;o<e;o++){let l=o*8,c=o*r;for(let u=0;u<r;u++)n[c+u]=l+i[u]}return n}getBVHBoundPositions(t,e=0,n=null){let i=this.depth-1,r=this.displayParents,o=0;t.traverse((u,f)=>{if(u>=i||f)return o++,!0;r&&o++},e);let l=0,c=new Float32Array(24*o);return t.traverse((u,f,a)=>{let d=u>=i||f;if(d||r){C(0,a,Ui);let{min:p,max:m}=Ui;for(let g=-1;g<=1;g+=2){let v=g<0?p.x:m.x;for(let b=-1;b<=1;b+=2){let h=b<0?p.y:m.y;for(let y=-1;y<=1;y+=2){let x=y<0?p.z:m.z;gn.set(v,h,x),n&&gn.applyMatrix4(n),gn.toArray(c,l),l+=3}}}return d}},e),c}},Hn=class s extends Ts{get color(){return this.edgeMaterial.color}get opacity(){return this.edgeMaterial.opacity}set opacity(t){this.edgeMaterial.opacity=t,this.meshMaterial.opacity=t}get objectIndex(){return console.warn('BVHHelper: "objectIndex" has been renamed "instanceId".'),this.instanceId}set objectIndex(t){console.warn('BVHHelper: "objectIndex" has been renamed "instanceId".'),this.instanceId=t}constructor(t=null,e=null,n=10){t instanceof Xt&&(n=e||10,e=t,t=null),typeof e=="number"&&(n=e,e=null),super(),this.name="BVHHelper",this.depth=n,this.mesh=t,this.bvh=e,this.displayParents=!1,this.displayEdges=!0,this.instanceId=0,this._roots=[];let i=new Ps({color:65416,transparent:!0,opacity:.3,depthWrite:!1}),r=new _s({color:65416,transparent:!0,opacity:.3,depthWrite:!1});r.color=i.color,this.edgeMaterial=i,this.meshMaterial=r,this.update()}update(){let t=this.mesh,e=this.instanceId,n=this.bvh||t.boundsTree||t.geometry&&t.geometry.boundsTree||null;if(t&&t.isBatchedMesh&&t.boundsTrees&&!n&&e>=0){let r=t._drawInfo[e];r&&(n=t.boundsTrees[r.geometryIndex]||n)}let i=n?n._roots.length:0;for(;this._roots.length>i;){let r=this._roots.pop();r.geometry.dispose(),this.remove(r)}for(let r=0;r<i;r++){let{depth:o,edgeMaterial:l,meshMaterial:c,displayParents:u,displayEdges:f}=this;if(r>=this._roots.length){let d=new kn(n,l,o,r);this.add(d),this._roots.push(d)}let a=this._roots[r];a.bvh=n,a.depth=o,a.displayParents=u,a.displayEdges=f,a.material=f?l:c,a.update()}}updateMatrixWorld(...t){let e=this.mesh,n=this.parent,i=this.instanceId;e!==null&&(e.updateWorldMatrix(!0,!1),n?this.matrix.copy(n.matrixWorld).invert().multiply(e.matrixWorld):this.matrix.copy(e.matrixWorld),(e.isInstancedMesh||e.isBatchedMesh)&&i>=0&&(e.getMatrixAt(i,ki),this.matrix.multiply(ki)),this.matrix.decompose(this.position,this.quaternion,this.scale)),super.updateMatrixWorld(...t)}copy(t){this.depth=t.depth,this.mesh=t.mesh,this.bvh=t.bvh,this.opacity=t.opacity,this.color.copy(t.color)}clone(){return new s().copy(this)}dispose(){this.edgeMaterial.dispose(),this.meshMaterial.dispose();let t=this.children;for(let e=0,n=t.length;e<n;e++)t[e].geometry.dispose()}},Hi=class extends Hn{constructor(...t){console.warn("MeshBVHHelper: Class has been deprecated. Use BVHHelper instead."),super(...t)}},vn=new Z,re=new Z;function Oi(s){switch(typeof s){case"number":return 8;case"string":return s.length*2;case"boolean":return 4;default:return 0}}function Co(s){return/(Uint|Int|Float)(8|16|32)Array/.test(s.constructor.name)}function No(s,t){let e={nodeCount:0,leafNodeCount:0,depth:{min:1/0,max:-1/0},primitives:{min:1/0,max:-1/0},splits:[0,0,0],surfaceAreaScore:0};return s.traverse((n,i,r,o,l)=>{let c=r[3]-r[0],u=r[4]-r[1],f=r[5]-r[2],a=2*(c*u+u*f+f*c);e.nodeCount++,i?(e.leafNodeCount++,e.depth.min=Math.min(n,e.depth.min),e.depth.max=Math.max(n,e.depth.max),e.primitives.min=Math.min(l,e.primitives.min),e.primitives.max=Math.max(l,e.primitives.max),e.surfaceAreaScore+=a*Oe*l):(e.splits[o]++,e.surfaceAreaScore+=a*Pn)},t),e.primitives.min===1/0&&(e.primitives.min=0,e.primitives.max=0),e.depth.min===1/0&&(e.depth.min=0,e.depth.max=0),e}function jo(s){return s._roots.map((t,e)=>No(s,e))}function Go(s){let t=new Set,e=[s],n=0;for(;e.length;){let i=e.pop();if(!t.has(i)){t.add(i);for(let r in i){if(!Object.hasOwn(i,r))continue;n+=Oi(r);let o=i[r];o&&(typeof o=="object"||typeof o=="function")?Co(o)||as()&&o instanceof SharedArrayBuffer||o instanceof ArrayBuffer?n+=o.byteLength:e.push(o):n+=Oi(o)}}}return n}function Jo(s){let t=[],e=new Float32Array(6),n=!0;return s.traverse((i,r,o,l,c)=>{let u={depth:i,isLeaf:r,boundingData:o,offset:l,count:c};t[i]=u,C(0,o,vn);let f=t[i-1];if(r){s.writePrimitiveRangeBounds(l,c,e,0),re.min.set(e[0],e[1],e[2]),re.max.set(e[3],e[4],e[5]);let a=vn.containsBox(re);console.assert(a,"Leaf bounds does not fully contain primitives."),n=n&&a}if(f){C(0,f.boundingData,re);let a=re.containsBox(vn);console.assert(a,"Parent bounds does not fully contain child."),n=n&&a}}),n}function Qo(s){let t=[];return s.traverse((e,n,i,r,o)=>{let l={bounds:C(0,i,new Z)};n?(l.count=o,l.offset=r):(l.left=null,l.right=null),t[e]=l;let c=t[e-1];c&&(c.left===null?c.left=l:c.right=l)}),t[0]}var Lo=parseInt(he)>=166,Ot={Mesh:ye.prototype.raycast,Line:es.prototype.raycast,LineSegments:ns.prototype.raycast,LineLoop:is.prototype.raycast,Points:ss.prototype.raycast,BatchedMesh:Is.prototype.raycast},W=new ye,Ve=[];function tr(s,t){if(this.isBatchedMesh)Vo.call(this,s,t);else{let{geometry:e}=this;if(e.boundsTree)e.boundsTree.raycastObject3D(this,s,t);else{let n;if(this instanceof ye)n=Ot.Mesh;else if(this instanceof ns)n=Ot.LineSegments;else if(this instanceof is)n=Ot.LineLoop;else if(this instanceof es)n=Ot.Line;else if(this instanceof ss)n=Ot.Points;else throw new Error("BVH: Fallback raycast function not found.");n.call(this,s,t)}}}function Vo(s,t){if(this.boundsTrees){let e=this.boundsTrees,n=this._drawInfo||this._instanceInfo,i=this._drawRanges||this._geometryInfo,r=this.matrixWorld;W.material=this.material,W.geometry=this.geometry;let o=W.geometry.boundsTree,l=W.geometry.drawRange;W.geometry.boundingSphere===null&&(W.geometry.boundingSphere=new ts);for(let c=0,u=n.length;c<u;c++){if(!this.getVisibleAt(c))continue;let f=n[c].geometryIndex;if(W.geometry.boundsTree=e[f],this.getMatrixAt(c,W.matrixWorld).premultiply(r),!W.geometry.boundsTree){this.getBoundingBoxAt(f,W.geometry.boundingBox),this.getBoundingSphereAt(f,W.geometry.boundingSphere);let a=i[f];W.geometry.setDrawRange(a.start,a.count)}W.raycast(s,Ve);for(let a=0,d=Ve.length;a<d;a++){let p=Ve[a];p.object=this,p.batchId=c,t.push(p)}Ve.length=0}W.geometry.boundsTree=o,W.geometry.drawRange=l,W.material=null,W.geometry=null}else Ot.BatchedMesh.call(this,s,t)}function er(s={}){let{type:t=Xt}=s;return this.boundsTree=new t(this,s),this.boundsTree}function nr(){this.boundsTree=null}function ir(s=-1,t={}){if(!Lo)throw new Error("BatchedMesh: Three r166+ is required to compute bounds trees.");t={...t,range:null};let e=this._drawRanges||this._geometryInfo,n=this._geometryCount;this.boundsTrees||(this.boundsTrees=new Array(n).fill(null));let i=this.boundsTrees;for(;i.length<n;)i.push(null);if(s<0){for(let r=0;r<n;r++)t.range=e[r],i[r]=new Xt(this.geometry,t);return i}else return s<e.length&&(t.range=e[s],i[s]=new Xt(this.geometry,t)),i[s]||null}function sr(s=-1){s<0?this.boundsTrees.fill(null):s<this.boundsTrees.length&&(this.boundsTrees[s]=null)}function Uo(s){switch(s){case 1:return"R";case 2:return"RG";case 3:return"RGBA";case 4:return"RGBA"}throw new Error}function ko(s){switch(s){case 1:return Ms;case 2:return Ss;case 3:return We;case 4:return We}}function qi(s){switch(s){case 1:return Ds;case 2:return os;case 3:return Bn;case 4:return Bn}}var pe=class extends Tn{constructor(){super(),this.minFilter=qt,this.magFilter=qt,this.generateMipmaps=!1,this.overrideItemSize=null,this._forcedType=null}updateFrom(t){let e=this.overrideItemSize,n=t.itemSize,i=t.count;if(e!==null){if(n*i%e!==0)throw new Error("VertexAttributeTexture: overrideItemSize must divide evenly into buffer length.");t.itemSize=e,t.count=i*n/e}let r=t.itemSize,o=t.count,l=t.normalized,c=t.array.constructor,u=c.BYTES_PER_ELEMENT,f=this._forcedType,a=r;if(f===null)switch(c){case Float32Array:f=ue;break;case Uint8Array:case Uint16Array:case Uint32Array:f=le;break;case Int8Array:case Int16Array:case Int32Array:f=He;break}let d,p,m,g,v=Uo(r);switch(f){case ue:m=1,p=ko(r),l&&u===1?(g=c,v+="8",c===Uint8Array?d=jn:(d=Gn,v+="_SNORM")):(g=Float32Array,v+="32F",d=ue);break;case He:v+=u*8+"I",m=l?Math.pow(2,c.BYTES_PER_ELEMENT*8-1):1,p=qi(r),u===1?(g=Int8Array,d=Gn):u===2?(g=Int16Array,d=Es):(g=Int32Array,d=He);break;case le:v+=u*8+"UI",m=l?Math.pow(2,c.BYTES_PER_ELEMENT*8-1):1,p=qi(r),u===1?(g=Uint8Array,d=jn):u===2?(g=Uint16Array,d=zs):(g=Uint32Array,d=le);break}a===3&&(p===We||p===Bn)&&(a=4);let b=Math.ceil(Math.sqrt(o))||1,h=a*b*b,y=new g(h),x=t.normalized;t.normalized=!1;for(let w=0;w<o;w++){let _=a*w;y[_]=t.getX(w)/m,r>=2&&(y[_+1]=t.getY(w)/m),r>=3&&(y[_+2]=t.getZ(w)/m,a===4&&(y[_+3]=1)),r>=4&&(y[_+3]=t.getW(w)/m)}t.normalized=x,this.internalFormat=v,this.format=p,this.type=d,this.image.width=b,this.image.height=b,this.image.data=y,this.needsUpdate=!0,this.dispose(),t.itemSize=n,t.count=i}},On=class extends pe{constructor(){super(),this._forcedType=le}},Wi=class extends pe{constructor(){super(),this._forcedType=He}},qn=class extends pe{constructor(){super(),this._forcedType=ue}},$i=class{constructor(){this.index=new On,this.position=new qn,this.bvhBounds=new Tn,this.bvhContents=new Tn,this._cachedIndexAttr=null,this.index.overrideItemSize=3}updateFrom(t){let{geometry:e}=t;if(Oo(t,this.bvhBounds,this.bvhContents),this.position.updateFrom(e.attributes.position),t.indirect){let n=t._indirectBuffer;if(this._cachedIndexAttr===null||this._cachedIndexAttr.count!==n.length)if(e.index)this._cachedIndexAttr=e.index.clone();else{let i=ls(Ze(e));this._cachedIndexAttr=new xt(i,1,!1)}Ho(e,n,this._cachedIndexAttr),this.index.updateFrom(this._cachedIndexAttr)}else this.index.updateFrom(e.index)}dispose(){let{index:t,position:e,bvhBounds:n,bvhContents:i}=this;t&&t.dispose(),e&&e.dispose(),n&&n.dispose(),i&&i.dispose()}};function Ho(s,t,e){let n=e.array,i=s.index?s.index.array:null;for(let r=0,o=t.length;r<o;r++){let l=3*r,c=3*t[r];for(let u=0;u<3;u++)n[l+u]=i?i[c+u]:c+u}}function Oo(s,t,e){let n=s._roots;if(n.length!==1)throw new Error("MeshBVHUniformStruct: Multi-root BVHs not supported.");let i=n[0],r=new Uint16Array(i),o=new Uint32Array(i),l=new Float32Array(i),c=i.byteLength/j,u=2*Math.ceil(Math.sqrt(c/2)),f=new Float32Array(4*u*u),a=Math.ceil(Math.sqrt(c)),d=new Uint32Array(2*a*a);for(let p=0;p<c;p++){let m=p*j/4,g=m*2,v=m;for(let b=0;b<3;b++)f[8*p+0+b]=l[v+0+b],f[8*p+4+b]=l[v+3+b];if(N(g,r)){let b=$(g,r),h=U(m,o),y=Ns|b;d[p*2+0]=y,d[p*2+1]=h}else{let b=o[m+6],h=Ye(m,o);d[p*2+0]=h,d[p*2+1]=b}}t.image.data=f,t.image.width=u,t.image.height=u,t.format=We,t.type=ue,t.internalFormat="RGBA32F",t.minFilter=qt,t.magFilter=qt,t.generateMipmaps=!1,t.needsUpdate=!0,t.dispose(),e.image.data=d,e.image.width=a,e.image.height=a,e.format=os,e.type=le,e.internalFormat="RG32UI",e.minFilter=qt,e.magFilter=qt,e.generateMipmaps=!1,e.needsUpdate=!0,e.dispose()}var Tt=new M,Pt=new M,_t=new M,Xi=new $n,Ue=new M,bn=new M,Yi=new $n,Zi=new $n,ke=new q,Ki=new q;function ce(s,t){if(!s&&!t)return;let e=s.count===t.count,n=s.normalized===t.normalized,i=s.array.constructor===t.array.constructor,r=s.itemSize===t.itemSize;if(!e||!n||!i||!r)throw new Error}function ae(s,t=null){let e=s.array.constructor,n=s.normalized,i=s.itemSize,r=t===null?s.count:t;return new xt(new e(i*r),i,n)}function fs(s,t,e=0){if(s.isInterleavedBufferAttribute){let n=s.itemSize;for(let i=0,r=s.count;i<r;i++){let o=i+e;t.setX(o,s.getX(i)),n>=2&&t.setY(o,s.getY(i)),n>=3&&t.setZ(o,s.getZ(i)),n>=4&&t.setW(o,s.getW(i))}}else{let n=t.array,i=n.constructor,r=n.BYTES_PER_ELEMENT*s.itemSize*e;new i(n.buffer,r,s.array.length).set(s.array)}}function qo(s,t,e){let n=s.elements,i=t.elements;for(let r=0,o=i.length;r<o;r++)n[r]+=i[r]*e}function ji(s,t,e){let n=s.skeleton,i=s.geometry,r=n.bones,o=n.boneInverses;Yi.fromBufferAttribute(i.attributes.skinIndex,t),Zi.fromBufferAttribute(i.attributes.skinWeight,t),ke.elements.fill(0);for(let l=0;l<4;l++){let c=Zi.getComponent(l);if(c!==0){let u=Yi.getComponent(l);Ki.multiplyMatrices(r[u].matrixWorld,o[u]),qo(ke,Ki,c)}}return ke.multiply(s.bindMatrix).premultiply(s.bindMatrixInverse),e.transformDirection(ke),e}function wn(s,t,e,n,i){Ue.set(0,0,0);for(let r=0,o=s.length;r<o;r++){let l=t[r],c=s[r];l!==0&&(bn.fromBufferAttribute(c,n),e?Ue.addScaledVector(bn,l):Ue.addScaledVector(bn.sub(i),l))}i.add(Ue)}function Wo(s,t={useGroups:!1,updateIndex:!1,skipAttributes:[]},e=new It){let n=s[0].index!==null,{useGroups:i=!1,updateIndex:r=!1,skipAttributes:o=[]}=t,l=new Set(Object.keys(s[0].attributes)),c={},u=0;e.clearGroups();for(let f=0;f<s.length;++f){let a=s[f],d=0;if(n!==(a.index!==null))throw new Error("StaticGeometryGenerator: All geometries must have compatible attributes; make sure index attribute exists among all geometries, or in none of them.");for(let p in a.attributes){if(!l.has(p))throw new Error('StaticGeometryGenerator: All geometries must have compatible attributes; make sure "'+p+'" attribute exists among all geometries, or in none of them.');c[p]===void 0&&(c[p]=[]),c[p].push(a.attributes[p]),d++}if(d!==l.size)throw new Error("StaticGeometryGenerator: Make sure all geometries have the same number of attributes.");if(i){let p;if(n)p=a.index.count;else if(a.attributes.position!==void 0)p=a.attributes.position.count;else throw new Error("StaticGeometryGenerator: The geometry must have either an index or a position attribute");e.addGroup(u,p,f),u+=p}}if(n){let f=!1;if(!e.index){let a=0;for(let d=0;d<s.length;++d)a+=s[d].index.count;e.setIndex(new xt(new Uint32Array(a),1,!1)),f=!0}if(r||f){let a=e.index,d=0,p=0;for(let m=0;m<s.length;++m){let g=s[m],v=g.index;if(o[m]!==!0)for(let b=0;b<v.count;++b)a.setX(d,v.getX(b)+p),d++;p+=g.attributes.position.count}}}for(let f in c){let a=c[f];if(!(f in e.attributes)){let m=0;for(let g in a)m+=a[g].count;e.setAttribute(f,ae(c[f][0],m))}let d=e.attributes[f],p=0;for(let m=0,g=a.length;m<g;m++){let v=a[m];o[m]!==!0&&fs(v,d,p),p+=v.count}}return e}function $o(s,t){if(s===null||t===null)return s===t;if(s.length!==t.length)return!1;for(let e=0,n=s.length;e<n;e++)if(s[e]!==t[e])return!1;return!0}function Xo(s){let{index:t,attributes:e}=s;if(t)for(let n=0,i=t.count;n<i;n+=3){let r=t.getX(n),o=t.getX(n+2);t.setX(n,o),t.setX(n+2,r)}else for(let n in e){let i=e[n],r=i.itemSize;for(let o=0,l=i.count;o<l;o+=3)for(let c=0;c<r;c++){let u=i.getComponent(o,c),f=i.getComponent(o+2,c);i.setComponent(o,c,f),i.setComponent(o+2,c,u)}}return s}var Wn=class{constructor(t){this.matrixWorld=new q,this.geometryHash=null,this.boneMatrices=null,this.primitiveCount=-1,this.mesh=t,this.update()}update(){let t=this.mesh,e=t.geometry,n=t.skeleton,i=(e.index?e.index.count:e.attributes.position.count)/3;if(this.matrixWorld.copy(t.matrixWorld),this.geometryHash=e.attributes.position.version,this.primitiveCount=i,n){n.boneTexture||n.computeBoneTexture(),n.update();let r=n.boneMatrices;!this.boneMatrices||this.boneMatrices.length!==r.length?this.boneMatrices=r.slice():this.boneMatrices.set(r)}else this.boneMatrices=null}didChange(){let t=this.mesh,e=t.geometry,n=(e.index?e.index.count:e.attributes.position.count)/3;return!(this.matrixWorld.equals(t.matrixWorld)&&this.geometryHash===e.attributes.position.version&&$o(t.skeleton&&t.skeleton.boneMatrices||null,this.boneMatrices)&&this.primitiveCount===n)}},Gi=class{constructor(t){Array.isArray(t)||(t=[t]);let e=[];t.forEach(n=>{n.traverseVisible(i=>{i.isMesh&&e.push(i)})}),this.meshes=e,this.useGroups=!0,this.applyWorldTransforms=!0,this.attributes=["position","normal","color","tangent","uv","uv2"],this._intermediateGeometry=new Array(e.length).fill().map(()=>new It),this._diffMap=new WeakMap}getMaterials(){let t=[];return this.meshes.forEach(e=>{Array.isArray(e.material)?t.push(...e.material):t.push(e.material)}),t}generate(t=new It){let e=[],{meshes:n,useGroups:i,_intermediateGeometry:r,_diffMap:o}=this;for(let l=0,c=n.length;l<c;l++){let u=n[l],f=r[l],a=o.get(u);!a||a.didChange(u)?(this._convertToStaticGeometry(u,f),e.push(!1),a?a.update():o.set(u,new Wn(u))):e.push(!0)}if(r.length===0){t.setIndex(null);let l=t.attributes;for(let c in l)t.deleteAttribute(c);for(let c in this.attributes)t.setAttribute(this.attributes[c],new xt(new Float32Array(0),4,!1))}else Wo(r,{useGroups:i,skipAttributes:e},t);for(let l in t.attributes)t.attributes[l].needsUpdate=!0;return t}_convertToStaticGeometry(t,e=new It){let n=t.geometry,i=this.applyWorldTransforms,r=this.attributes.includes("normal"),o=this.attributes.includes("tangent"),l=n.attributes,c=e.attributes;!e.index&&n.index&&(e.index=n.index.clone()),c.position||e.setAttribute("position",ae(l.position)),r&&!c.normal&&l.normal&&e.setAttribute("normal",ae(l.normal)),o&&!c.tangent&&l.tangent&&e.setAttribute("tangent",ae(l.tangent)),ce(n.index,e.index),ce(l.position,c.position),r&&ce(l.normal,c.normal),o&&ce(l.tangent,c.tangent);let u=l.position,f=r?l.normal:null,a=o?l.tangent:null,d=n.morphAttributes.position,p=n.morphAttributes.normal,m=n.morphAttributes.tangent,g=n.morphTargetsRelative,v=t.morphTargetInfluences,b=new Fs;b.getNormalMatrix(t.matrixWorld),n.index&&e.index.array.set(n.index.array);for(let h=0,y=l.position.count;h<y;h++)Tt.fromBufferAttribute(u,h),f&&Pt.fromBufferAttribute(f,h),a&&(Xi.fromBufferAttribute(a,h),_t.fromBufferAttribute(a,h)),v&&(d&&wn(d,v,g,h,Tt),p&&wn(p,v,g,h,Pt),m&&wn(m,v,g,h,_t)),t.isSkinnedMesh&&(t.applyBoneTransform(h,Tt),f&&ji(t,h,Pt),a&&ji(t,h,_t)),i&&Tt.applyMatrix4(t.matrixWorld),c.position.setXYZ(h,Tt.x,Tt.y,Tt.z),f&&(i&&Pt.applyNormalMatrix(b),c.normal.setXYZ(h,Pt.x,Pt.y,Pt.z)),a&&(i&&_t.transformDirection(t.matrixWorld),c.tangent.setXYZW(h,_t.x,_t.y,_t.z,Xi.w));for(let h in this.attributes){let y=this.attributes[h];y==="position"||y==="tangent"||y==="normal"||!(y in l)||(c[y]||e.setAttribute(y,ae(l[y])),ce(l[y],c[y]),fs(l[y],c[y]))}return t.matrixWorld.determinant()<0&&Xo(e),e}},ds=`

// A stack of uint32 indices can can store the indices for
// a perfectly balanced tree with a depth up to 31. Lower stack
// depth gets higher performance.
//
// However not all trees are balanced. Best value to set this to
// is the trees max depth.
#ifndef BVH_STACK_DEPTH
#define BVH_STACK_DEPTH 60
#endif

#ifndef INFINITY
#define INFINITY 1e20
#endif

// Utilities
uvec4 uTexelFetch1D( usampler2D tex, uint index ) {

	uint width = uint( textureSize( tex, 0 ).x );
	uvec2 uv;
	uv.x = index % width;
	uv.y = index / width;

	return texelFetch( tex, ivec2( uv ), 0 );

}

ivec4 iTexelFetch1D( isampler2D tex, uint index ) {

	uint width = uint( textureSize( tex, 0 ).x );
	uvec2 uv;
	uv.x = index % width;
	uv.y = index / width;

	return texelFetch( tex, ivec2( uv ), 0 );

}

vec4 texelFetch1D( sampler2D tex, uint index ) {

	uint width = uint( textureSize( tex, 0 ).x );
	uvec2 uv;
	uv.x = index % width;
	uv.y = index / width;

	return texelFetch( tex, ivec2( uv ), 0 );

}

vec4 textureSampleBarycoord( sampler2D tex, vec3 barycoord, uvec3 faceIndices ) {

	return
		barycoord.x * texelFetch1D( tex, faceIndices.x ) +
		barycoord.y * texelFetch1D( tex, faceIndices.y ) +
		barycoord.z * texelFetch1D( tex, faceIndices.z );

}

void ndcToCameraRay(
	vec2 coord, mat4 cameraWorld, mat4 invProjectionMatrix,
	out vec3 rayOrigin, out vec3 rayDirection
) {

	// get camera look direction and near plane for camera clipping
	vec4 lookDirection = cameraWorld * vec4( 0.0, 0.0, - 1.0, 0.0 );
	vec4 nearVector = invProjectionMatrix * vec4( 0.0, 0.0, - 1.0, 1.0 );
	float near = abs( nearVector.z / nearVector.w );

	// get the camera direction and position from camera matrices
	vec4 origin = cameraWorld * vec4( 0.0, 0.0, 0.0, 1.0 );
	vec4 direction = invProjectionMatrix * vec4( coord, 0.5, 1.0 );
	direction /= direction.w;
	direction = cameraWorld * direction - origin;

	// slide the origin along the ray until it sits at the near clip plane position
	origin.xyz += direction.xyz * near / dot( direction, lookDirection );

	rayOrigin = origin.xyz;
	rayDirection = direction.xyz;

}
`,ps=`

float dot2( vec3 v ) {

	return dot( v, v );

}

// implementation from https://www.shadertoy.com/view/ttfGWl, though method 2 has been removed
// and is now available at this fork: https://www.shadertoy.com/view/WlB3zW
vec3 closestPointToTriangle( vec3 p, vec3 v0, vec3 v1, vec3 v2, out vec3 barycoord ) {

    vec3 v10 = v1 - v0;
    vec3 v21 = v2 - v1;
    vec3 v02 = v0 - v2;

	vec3 p0 = p - v0;
	vec3 p1 = p - v1;
	vec3 p2 = p - v2;

    vec3 nor = cross( v10, v02 );

    // method 2, in barycentric space
    vec3  q = cross( nor, p0 );
    float d = 1.0 / dot2( nor );
    float u = d * dot( q, v02 );
    float v = d * dot( q, v10 );
    float w = 1.0 - u - v;

	if( u < 0.0 ) {

		w = clamp( dot( p2, v02 ) / dot2( v02 ), 0.0, 1.0 );
		u = 0.0;
		v = 1.0 - w;

	} else if( v < 0.0 ) {

		u = clamp( dot( p0, v10 ) / dot2( v10 ), 0.0, 1.0 );
		v = 0.0;
		w = 1.0 - u;

	} else if( w < 0.0 ) {

		v = clamp( dot( p1, v21 ) / dot2( v21 ), 0.0, 1.0 );
		w = 0.0;
		u = 1.0 - v;

	}

	// output the barycoord in v0, v1, v2 weight order
	barycoord = vec3( w, u, v );
    return u * v1 + v * v2 + w * v0;

}

float distanceToTriangles(
	// geometry info and triangle range
	sampler2D positionAttr, usampler2D indexAttr, uint offset, uint count,

	// point and cut off range
	vec3 point, float closestDistanceSquared,

	// outputs
	inout uvec4 faceIndices, inout vec3 faceNormal, inout vec3 barycoord, inout float side, inout vec3 outPoint
) {

	bool found = false;
	vec3 localBarycoord;
	for ( uint i = offset, l = offset + count; i < l; i ++ ) {

		uvec3 indices = uTexelFetch1D( indexAttr, i ).xyz;
		vec3 a = texelFetch1D( positionAttr, indices.x ).rgb;
		vec3 b = texelFetch1D( positionAttr, indices.y ).rgb;
		vec3 c = texelFetch1D( positionAttr, indices.z ).rgb;

		// get the closest point and barycoord
		vec3 closestPoint = closestPointToTriangle( point, a, b, c, localBarycoord );
		vec3 delta = point - closestPoint;
		float sqDist = dot2( delta );
		if ( sqDist < closestDistanceSquared ) {

			// set the output results
			closestDistanceSquared = sqDist;
			faceIndices = uvec4( indices.xyz, i );
			faceNormal = normalize( cross( a - b, b - c ) );
			barycoord = localBarycoord;
			outPoint = closestPoint;
			side = sign( dot( faceNormal, delta ) );

		}

	}

	return closestDistanceSquared;

}

float distanceSqToBounds( vec3 point, vec3 boundsMin, vec3 boundsMax ) {

	vec3 clampedPoint = clamp( point, boundsMin, boundsMax );
	vec3 delta = point - clampedPoint;
	return dot( delta, delta );

}

float distanceSqToBVHNodeBoundsPoint( vec3 point, sampler2D bvhBounds, uint currNodeIndex ) {

	uint cni2 = currNodeIndex * 2u;
	vec3 boundsMin = texelFetch1D( bvhBounds, cni2 ).xyz;
	vec3 boundsMax = texelFetch1D( bvhBounds, cni2 + 1u ).xyz;
	return distanceSqToBounds( point, boundsMin, boundsMax );

}

// use a macro to hide the fact that we need to expand the struct into separate fields
#define	bvhClosestPointToPoint(		bvh,		point, maxDistance, faceIndices, faceNormal, barycoord, side, outPoint	)	_bvhClosestPointToPoint(		bvh.position, bvh.index, bvh.bvhBounds, bvh.bvhContents,		point, maxDistance, faceIndices, faceNormal, barycoord, side, outPoint	)

float _bvhClosestPointToPoint(
	// bvh info
	sampler2D bvh_position, usampler2D bvh_index, sampler2D bvh_bvhBounds, usampler2D bvh_bvhContents,

	// point to check
	vec3 point, float maxDistance,

	// output variables
	inout uvec4 faceIndices, inout vec3 faceNormal, inout vec3 barycoord,
	inout float side, inout vec3 outPoint
 ) {

	// stack needs to be twice as long as the deepest tree we expect because
	// we push both the left and right child onto the stack every traversal
	int pointer = 0;
	uint stack[ BVH_STACK_DEPTH ];
	stack[ 0 ] = 0u;

	float closestDistanceSquared = maxDistance * maxDistance;
	bool found = false;
	while ( pointer > - 1 && pointer < BVH_STACK_DEPTH ) {

		uint currNodeIndex = stack[ pointer ];
		pointer --;

		// check if we intersect the current bounds
		float boundsHitDistance = distanceSqToBVHNodeBoundsPoint( point, bvh_bvhBounds, currNodeIndex );
		if ( boundsHitDistance > closestDistanceSquared ) {

			continue;

		}

		uvec2 boundsInfo = uTexelFetch1D( bvh_bvhContents, currNodeIndex ).xy;
		bool isLeaf = bool( boundsInfo.x & 0xffff0000u );
		if ( isLeaf ) {

			uint count = boundsInfo.x & 0x0000ffffu;
			uint offset = boundsInfo.y;
			closestDistanceSquared = distanceToTriangles(
				bvh_position, bvh_index, offset, count, point, closestDistanceSquared,

				// outputs
				faceIndices, faceNormal, barycoord, side, outPoint
			);

		} else {

			uint leftIndex = currNodeIndex + 1u;
			uint splitAxis = boundsInfo.x & 0x0000ffffu;
			uint rightIndex = currNodeIndex + boundsInfo.y;
			bool leftToRight = distanceSqToBVHNodeBoundsPoint( point, bvh_bvhBounds, leftIndex ) < distanceSqToBVHNodeBoundsPoint( point, bvh_bvhBounds, rightIndex );//rayDirection[ splitAxis ] >= 0.0;
			uint c1 = leftToRight ? leftIndex : rightIndex;
			uint c2 = leftToRight ? rightIndex : leftIndex;

			// set c2 in the stack so we traverse it later. We need to keep track of a pointer in
			// the stack while we traverse. The second pointer added is the one that will be
			// traversed first
			pointer ++;
			stack[ pointer ] = c2;
			pointer ++;
			stack[ pointer ] = c1;

		}

	}

	return sqrt( closestDistanceSquared );

}
`,hs=`

#ifndef TRI_INTERSECT_EPSILON
#define TRI_INTERSECT_EPSILON 1e-5
#endif

// Raycasting
bool intersectsBounds( vec3 rayOrigin, vec3 rayDirection, vec3 boundsMin, vec3 boundsMax, out float dist ) {

	// https://www.reddit.com/r/opengl/comments/8ntzz5/fast_glsl_ray_box_intersection/
	// https://tavianator.com/2011/ray_box.html
	vec3 invDir = 1.0 / rayDirection;

	// find intersection distances for each plane
	vec3 tMinPlane = invDir * ( boundsMin - rayOrigin );
	vec3 tMaxPlane = invDir * ( boundsMax - rayOrigin );

	// get the min and max distances from each intersection
	vec3 tMinHit = min( tMaxPlane, tMinPlane );
	vec3 tMaxHit = max( tMaxPlane, tMinPlane );

	// get the furthest hit distance
	vec2 t = max( tMinHit.xx, tMinHit.yz );
	float t0 = max( t.x, t.y );

	// get the minimum hit distance
	t = min( tMaxHit.xx, tMaxHit.yz );
	float t1 = min( t.x, t.y );

	// set distance to 0.0 if the ray starts inside the box
	dist = max( t0, 0.0 );

	return t1 >= dist;

}

bool intersectsTriangle(
	vec3 rayOrigin, vec3 rayDirection, vec3 a, vec3 b, vec3 c,
	out vec3 barycoord, out vec3 norm, out float dist, out float side
) {

	// https://stackoverflow.com/questions/42740765/intersection-between-line-and-triangle-in-3d
	vec3 edge1 = b - a;
	vec3 edge2 = c - a;
	norm = cross( edge1, edge2 );

	float det = - dot( rayDirection, norm );
	float invdet = 1.0 / det;

	vec3 AO = rayOrigin - a;
	vec3 DAO = cross( AO, rayDirection );

	vec4 uvt;
	uvt.x = dot( edge2, DAO ) * invdet;
	uvt.y = - dot( edge1, DAO ) * invdet;
	uvt.z = dot( AO, norm ) * invdet;
	uvt.w = 1.0 - uvt.x - uvt.y;

	// set the hit information
	barycoord = uvt.wxy; // arranged in A, B, C order
	dist = uvt.z;
	side = sign( det );
	norm = side * normalize( norm );

	// add an epsilon to avoid misses between triangles
	uvt += vec4( TRI_INTERSECT_EPSILON );

	return all( greaterThanEqual( uvt, vec4( 0.0 ) ) );

}

bool intersectTriangles(
	// geometry info and triangle range
	sampler2D positionAttr, usampler2D indexAttr, uint offset, uint count,

	// ray
	vec3 rayOrigin, vec3 rayDirection,

	// outputs
	inout float minDistance, inout uvec4 faceIndices, inout vec3 faceNormal, inout vec3 barycoord,
	inout float side, inout float dist
) {

	bool found = false;
	vec3 localBarycoord, localNormal;
	float localDist, localSide;
	for ( uint i = offset, l = offset + count; i < l; i ++ ) {

		uvec3 indices = uTexelFetch1D( indexAttr, i ).xyz;
		vec3 a = texelFetch1D( positionAttr, indices.x ).rgb;
		vec3 b = texelFetch1D( positionAttr, indices.y ).rgb;
		vec3 c = texelFetch1D( positionAttr, indices.z ).rgb;

		if (
			intersectsTriangle( rayOrigin, rayDirection, a, b, c, localBarycoord, localNormal, localDist, localSide )
			&& localDist < minDistance
		) {

			found = true;
			minDistance = localDist;

			faceIndices = uvec4( indices.xyz, i );
			faceNormal = localNormal;

			side = localSide;
			barycoord = localBarycoord;
			dist = localDist;

		}

	}

	return found;

}

bool intersectsBVHNodeBounds( vec3 rayOrigin, vec3 rayDirection, sampler2D bvhBounds, uint currNodeIndex, out float dist ) {

	uint cni2 = currNodeIndex * 2u;
	vec3 boundsMin = texelFetch1D( bvhBounds, cni2 ).xyz;
	vec3 boundsMax = texelFetch1D( bvhBounds, cni2 + 1u ).xyz;
	return intersectsBounds( rayOrigin, rayDirection, boundsMin, boundsMax, dist );

}

// use a macro to hide the fact that we need to expand the struct into separate fields
#define	bvhIntersectFirstHit(		bvh,		rayOrigin, rayDirection, faceIndices, faceNormal, barycoord, side, dist	)	_bvhIntersectFirstHit(		bvh.position, bvh.index, bvh.bvhBounds, bvh.bvhContents,		rayOrigin, rayDirection, faceIndices, faceNormal, barycoord, side, dist	)

bool _bvhIntersectFirstHit(
	// bvh info
	sampler2D bvh_position, usampler2D bvh_index, sampler2D bvh_bvhBounds, usampler2D bvh_bvhContents,

	// ray
	vec3 rayOrigin, vec3 rayDirection,

	// output variables split into separate variables due to output precision
	inout uvec4 faceIndices, inout vec3 faceNormal, inout vec3 barycoord,
	inout float side, inout float dist
) {

	// stack needs to be twice as long as the deepest tree we expect because
	// we push both the left and right child onto the stack every traversal
	int pointer = 0;
	uint stack[ BVH_STACK_DEPTH ];
	stack[ 0 ] = 0u;

	float triangleDistance = INFINITY;
	bool found = false;
	while ( pointer > - 1 && pointer < BVH_STACK_DEPTH ) {

		uint currNodeIndex = stack[ pointer ];
		pointer --;

		// check if we intersect the current bounds
		float boundsHitDistance;
		if (
			! intersectsBVHNodeBounds( rayOrigin, rayDirection, bvh_bvhBounds, currNodeIndex, boundsHitDistance )
			|| boundsHitDistance > triangleDistance
		) {

			continue;

		}

		uvec2 boundsInfo = uTexelFetch1D( bvh_bvhContents, currNodeIndex ).xy;
		bool isLeaf = bool( boundsInfo.x & 0xffff0000u );

		if ( isLeaf ) {

			uint count = boundsInfo.x & 0x0000ffffu;
			uint offset = boundsInfo.y;

			found = intersectTriangles(
				bvh_position, bvh_index, offset, count,
				rayOrigin, rayDirection, triangleDistance,
				faceIndices, faceNormal, barycoord, side, dist
			) || found;

		} else {

			uint leftIndex = currNodeIndex + 1u;
			uint splitAxis = boundsInfo.x & 0x0000ffffu;
			uint rightIndex = currNodeIndex + boundsInfo.y;

			bool leftToRight = rayDirection[ splitAxis ] >= 0.0;
			uint c1 = leftToRight ? leftIndex : rightIndex;
			uint c2 = leftToRight ? rightIndex : leftIndex;

			// set c2 in the stack so we traverse it later. We need to keep track of a pointer in
			// the stack while we traverse. The second pointer added is the one that will be
			// traversed first
			pointer ++;
			stack[ pointer ] = c2;

			pointer ++;
			stack[ pointer ] = c1;

		}

	}

	return found;

}
`,ms=`
struct BVH {

	usampler2D index;
	sampler2D position;

	sampler2D bvhBounds;
	usampler2D bvhContents;

};
`,or=Object.freeze({__proto__:null,bvh_distance_functions:ps,bvh_ray_functions:hs,bvh_struct_definitions:ms,common_functions:ds}),rr=ms,cr=ps,ar=`
	${ds}
	${hs}
`;export{Rs as AVERAGE,Xe as BVH,Hn as BVHHelper,or as BVHShaderGLSL,rs as CENTER,Jn as CONTAINED,G as ExtendedTriangle,qn as FloatVertexAttributeTexture,$t as GeometryBVH,gt as INTERSECTED,Wi as IntVertexAttributeTexture,Bi as LineBVH,Ln as LineLoopBVH,Nn as LineSegmentsBVH,Xt as MeshBVH,Hi as MeshBVHHelper,$i as MeshBVHUniformStruct,nt as NOT_INTERSECTED,Mi as ObjectBVH,Y as OrientedBox,_i as PointsBVH,Cs as SAH,de as SKIP_GENERATION,Vi as SkinnedMeshBVH,Gi as StaticGeometryGenerator,On as UIntVertexAttributeTexture,pe as VertexAttributeTexture,tr as acceleratedRaycast,ir as computeBatchedBoundsTree,er as computeBoundsTree,sr as disposeBatchedBoundsTree,nr as disposeBoundsTree,Go as estimateMemoryInBytes,Ks as generateIndirectBuffer,jo as getBVHExtremes,Qo as getJSONStructure,Ko as getTriangleHitPointInfo,cr as shaderDistanceFunction,ar as shaderIntersectFunction,rr as shaderStructs,Jo as validateBounds};
