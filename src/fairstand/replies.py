"""JSON in and out, and one sentence for what goes wrong."""

import json
import logging
from collections.abc import Callable
from functools import wraps

from django.core.exceptions import RequestDataTooBig
from django.http import Http404, HttpRequest, JsonResponse
from django.http.request import RawPostDataException, UnreadablePostError

from printability.errors import PrintabilityError
from printability.stance_file import is_text

__all__ = ["PlainErrorsMiddleware", "Superseded", "body_of", "json_view"]

log = logging.getLogger(__name__)


class BadBody(PrintabilityError):
    """A request body that is not the JSON object that was asked for."""


class Superseded(PrintabilityError):
    """What was asked for belongs to a state that has changed meanwhile.

    Parameters
    ----------
    message : str
        A sentence for the maker.
    now : dict
        What there is now, for the page to catch up.
    """

    def __init__(self, message: str, now: dict | None = None):
        super().__init__(message)
        self.now = now or {}


def body_of(request: HttpRequest) -> dict:
    """The JSON object that a request carries.

    Raises
    ------
    BadBody
    """
    try:
        body = json.loads(request.body or b"{}")
    except RequestDataTooBig as error:
        raise BadBody("That is more than can be taken in one change; do it in parts.") from error
    except (ValueError, RecursionError, UnreadablePostError, RawPostDataException) as error:
        raise BadBody("The request cannot be read.") from error
    if not isinstance(body, dict) or not is_text(body, request.body):
        raise BadBody("The request cannot be read.")
    return body


def json_view(view: Callable) -> Callable:
    """Answer a view's dictionary as JSON, and the core's errors as a sentence with status 400."""

    @wraps(view)
    def answer(request, *args, **kwargs):
        try:
            result = view(request, *args, **kwargs)
        except Superseded as error:
            return JsonResponse({"error": str(error), **error.now}, status=409)
        except PrintabilityError as error:
            return JsonResponse({"error": str(error)}, status=400)
        return JsonResponse(result) if isinstance(result, dict) else result

    return answer


class PlainErrorsMiddleware:
    """Say in a sentence what a script would otherwise have to read out of a page."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        return self.get_response(request)

    def process_exception(self, request, error):
        """Turn errors of scripted requests into JSON; pages keep Django's own handling."""
        if "application/json" not in request.headers.get("Accept", ""):
            return None
        if isinstance(error, Http404):
            return JsonResponse({"error": "It is not there any more; reload the page."}, status=404)
        log.exception("Unexpected error at %s", request.path)
        return JsonResponse(
            {"error": "Something went wrong here; nothing was changed. Reload the page."},
            status=500,
        )
