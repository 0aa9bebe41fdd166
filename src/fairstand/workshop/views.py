"""The workshop's pages: what is shipped, copies with other numbers, files in and out."""

from django.http import HttpResponse
from django.shortcuts import redirect, render
from django.utils import timezone
from django.utils.text import slugify
from django.views.decorators.csrf import ensure_csrf_cookie
from django.views.decorators.http import require_GET, require_POST

from fairstand.reading import described
from fairstand.replies import Superseded
from printability.errors import PrintabilityError, ProcessError
from printability.process import STEPS
from printability.proposing import habits as table

from . import forms, shelf
from .models import Copy

__all__ = [
    "as_json", "bring_back", "bring_in", "change", "copy", "index", "put_away", "redo", "thing",
    "undo",
]  # fmt: skip

_MOST_FILE = 200_000


@require_GET
@ensure_csrf_cookie
def index(request):
    """Everything in the workshop."""
    return _index(request)


def _index(request, problem: str = "", status: int = 200):
    nouns = [
        {"noun": noun, "things": things,
         "away": Copy.objects.filter(owner=request.user, noun=noun.key, deleted__isnull=False)}
        for noun, things in shelf.shelf(request.user)
    ]  # fmt: skip
    context = {"nouns": nouns, "problem": problem}
    return render(request, "workshop/index.html", context, status=status)


@require_GET
@ensure_csrf_cookie
def thing(request, noun, key):
    """One thing: fixed where it is shipped, a form where it is the maker's own."""
    try:
        return _thing(request, shelf.found(request.user, noun, key))
    except ProcessError as error:
        return _index(request, str(error), 404)


def _thing(request, one: shelf.Shelved, problem: str = "", status: int = 200):
    user, context = request.user, {"one": one, "problem": problem, "steps": STEPS}
    if one.noun.key == "habits":
        names = {name for p in shelf.choices(user, "process") for name in _profiles(user, p)}
        context |= {
            "lines": forms.lines_of(one), "places": table.PLACES, "stands": table.STANDS,
            "sides": {"any": "any side", "show": "show side", "back": "back side",
                      "plain": "neither"},
            "profiles": sorted(names | {line["profile"] for line in one.said["lines"]}),
        }  # fmt: skip
    else:
        context["groups"] = forms.fields_of(user, one)
    if one.noun.key == "process":
        context |= {
            "machines": shelf.choices(user, "machine", one.like),
            "materials": shelf.choices(user, "material", one.like),
            "profiles": forms.profiles_of(user, one),
        }
    return render(request, "workshop/thing.html", context, status=status)


def _profiles(user, process: shelf.Shelved):
    try:
        return forms.made(user, process).profiles
    except ProcessError:
        return ()


@require_GET
@described("application/json")
def as_json(request, noun, key):
    """A machine, material, process or table of habits as a file, complete in itself."""
    try:
        one = shelf.found(request.user, noun, key)
        text = shelf.written(request.user, one)
    except ProcessError as error:
        return HttpResponse(str(error), "text/plain", status=404)
    name = slugify(one.label) or noun
    return HttpResponse(
        text, "application/json",
        headers={"Content-Disposition": f'attachment; filename="{name}.json"'},
    )  # fmt: skip


@require_POST
def bring_in(request):
    """Take in a file that `as_json` gave."""
    file = request.FILES.get("file")
    if file is None:
        return _index(request, "No file came with the request; choose one.", 400)
    try:
        made = shelf.brought_in(request.user, file.read(_MOST_FILE + 1))
    except ProcessError as error:
        return _index(request, f"“{file.name}”: {error}", 400)
    return redirect("workshop:thing", made.noun, made.key)


@require_POST
def copy(request, noun, key):
    """Copy a thing; the copy can be changed."""
    try:
        made = shelf.copied(request.user, noun, key)
    except ProcessError as error:
        return _index(request, str(error), 400)
    return redirect("workshop:thing", made.noun, made.key)


def _revision(request) -> int:
    text = request.POST.get("revision", "")
    return int(text) if text.isascii() and text.isdigit() and len(text) < 10 else -1


def _after(request, noun, key, do):
    """The thing's page after a change, or with a sentence that says why there is none."""
    try:
        do()
    except PrintabilityError as error:
        status = 409 if isinstance(error, Superseded) else 400
        try:
            one = shelf.found(request.user, noun, key)
        except ProcessError:
            return _index(request, str(error), status)
        return _thing(request, one, str(error), status)
    return redirect("workshop:thing", noun, key)


@require_POST
def change(request, noun, key):
    """Give a copy other numbers."""

    def do():
        one = shelf.found(request.user, noun, key)
        said = forms.said_by(request.user, one, request.POST)
        shelf.change(request.user, noun, key, _revision(request), said)

    return _after(request, noun, key, do)


@require_POST
def undo(request, noun, key):
    """Take the last change back."""
    return _after(
        request, noun, key, lambda: shelf.move(request.user, noun, key, _revision(request), -1)
    )


@require_POST
def redo(request, noun, key):
    """Put a change in force again."""
    return _after(
        request, noun, key, lambda: shelf.move(request.user, noun, key, _revision(request), 1)
    )


@require_POST
def put_away(request, noun, key):
    """Delete a copy; what was made with it keeps it, and it can be brought back."""
    try:
        one = shelf.found(request.user, noun, key)
    except ProcessError as error:
        return _index(request, str(error), 404)
    if one.is_shipped:
        return _thing(request, one, "What is shipped cannot be deleted.", 400)
    one.copy.deleted = timezone.now()
    one.copy.save(update_fields=["deleted"])
    return redirect("workshop:index")


@require_POST
def bring_back(request, noun, key):
    """Undo that."""
    try:
        one = shelf.found(request.user, noun, key, deleted=True)
    except ProcessError as error:
        return _index(request, str(error), 404)
    if one.copy is not None:
        one.copy.deleted = None
        one.copy.save(update_fields=["deleted"])
    return redirect("workshop:thing", noun, key)
