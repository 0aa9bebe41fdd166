"""The activities of the bench, in the order of the work. Each has a script and a template."""

from dataclasses import dataclass

__all__ = ["ACTIVITIES", "Activity"]


@dataclass(frozen=True)
class Activity:
    """An activity: its key is that of its script, the template what stands in the left column.

    One without a template is a page of its own.
    """

    key: str
    label: str
    template: str = ""


ACTIVITIES = (
    Activity("inspect", "Inspect", "bench/activities/inspect.html"),
    Activity("turn", "Turn", "turning/activity.html"),
    Activity("split", "Split", "splitting/activity.html"),
    Activity("reshape", "Reshape", "reshaping/activity.html"),
    Activity("prop", "Prop", "supports/activity.html"),
    Activity("compare", "Compare"),
    Activity("hand-over", "Hand over", "bench/activities/hand_over.html"),
)
