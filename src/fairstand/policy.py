"""What a page may load and run: only what the application itself serves."""

__all__ = ["ContentPolicyMiddleware"]

# Nothing from elsewhere, nothing inline, nothing evaluated: the expressions in the templates are
# read by Alpine's build for that.
_POLICY = (
    "default-src 'self'; script-src 'self'; "
    "style-src 'self'; img-src 'self' data: blob:; object-src 'none'; "
    "base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


class ContentPolicyMiddleware:
    """Sends the policy with every answer."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        answer = self.get_response(request)
        answer.headers.setdefault("Content-Security-Policy", _POLICY)
        return answer
