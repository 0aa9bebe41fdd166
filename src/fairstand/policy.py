"""What a page may load and run: only what the application itself serves."""

import secrets

__all__ = ["ContentPolicyMiddleware"]

# Alpine evaluates the expressions in the templates, and drawings carry their own styles: these
# two are open until both are moved into scripts. Nothing else from elsewhere, nothing inline.
_POLICY = (
    "default-src 'self'; script-src 'self' 'unsafe-eval' 'nonce-{nonce}'; "
    "style-src 'self' 'unsafe-inline'; img-src 'self' data: blob:; object-src 'none'; "
    "base-uri 'none'; form-action 'self'; frame-ancestors 'none'"
)


class ContentPolicyMiddleware:
    """Sends the policy with every answer; ``request.nonce`` marks what a page has inline."""

    def __init__(self, get_response):
        self.get_response = get_response

    def __call__(self, request):
        request.nonce = secrets.token_urlsafe(16)
        answer = self.get_response(request)
        answer.headers.setdefault("Content-Security-Policy", _POLICY.format(nonce=request.nonce))
        return answer
