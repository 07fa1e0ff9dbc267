"""Whether it runs."""

from django.contrib.auth.decorators import login_not_required
from django.db import DatabaseError, connection
from django.http import JsonResponse
from django.views.decorators.http import require_safe

import kettle


@login_not_required
@require_safe
def health(request):
    """For whoever watches the server: 200 while the database answers, 503 while it does not."""
    try:
        with connection.cursor() as cursor:
            cursor.execute("SELECT 1")
    except DatabaseError:
        return JsonResponse({"status": "no database", "version": kettle.__version__}, status=503)
    return JsonResponse({"status": "ok", "version": kettle.__version__})
