"""Who is asking. Without sign-in, that is the one local maker."""

from django.conf import settings
from django.contrib.auth import get_user_model
from django.http import HttpResponse

__all__ = ["LocalMakerMiddleware", "local_maker"]


def local_maker():
    """The user that owns everything while there is no sign-in; made on first use."""
    return get_user_model().objects.get_or_create(username=settings.FAIRSTAND_LOCAL_MAKER)[0]


class LocalMakerMiddleware:
    """Make every request the local maker's, unless someone has signed in.

    Where sign-in is switched on, nobody is the maker by default, and a stranger gets nothing.
    """

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        if not request.user.is_authenticated:
            if settings.FAIRSTAND_SIGN_IN:
                return HttpResponse("Sign in first.", "text/plain", status=401)
            request.user = local_maker()
        return self.get_response(request)
