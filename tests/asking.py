"""Requests to the bench as its page makes them."""

import json

from django.utils import timezone

from fairstand.stances.models import Stance


def post(client, stance_id, name, body=None, query=""):
    """A change, or a question with a body; made on what there is unless it says otherwise."""
    stance = Stance.objects.select_related("piece").get(pk=stance_id)
    on = {"revision": stance.revision, "strip_revision": stance.piece.strip_revision}
    asks = name.split("/")[0]
    made_on = ("edits", "undo", "redo", "fork", "rename", "move", "delete", "bring-back",
               "undo-strip", "redo-strip", "take-in")  # fmt: skip
    sent = {**(on if asks in made_on else {}), **(body or {})}
    return client.post(
        f"/bench/{stance_id}/{name.rstrip('/')}/{query}", json.dumps(sent), "application/json",
        headers={"accept": "application/json"},
    )  # fmt: skip


def edit(client, stance_id, kind, **parameters):
    """An edit."""
    return post(client, stance_id, "edits", {"kind": kind, "parameters": parameters})


def do_work(pk=None):
    """Do what waits, or the work that is named, as a process that works would; gives its record."""
    from fairstand.work.models import Work
    from fairstand.work.progress import run

    waiting = Work.objects.filter(state="waiting")
    work = waiting.latest("created") if pk is None else waiting.get(pk=pk)
    Work.objects.filter(pk=work.pk).update(state="running", worker="here", started=timezone.now())
    run(work.pk)
    work.refresh_from_db()
    return work
