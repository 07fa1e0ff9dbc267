"""The application as a WSGI server takes it; it refuses to start on data it does not fit."""

import os
import threading

from django.core.wsgi import get_wsgi_application

from kettle.plant.ready import is_compiled, load

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.settings")
application = get_wsgi_application()
LOADS_AFTER_S = 3.0

from web.running import schema  # noqa: E402, since models are loaded first

if refusal := schema.difference():
    raise SystemExit(refusal)

# Done when the plant model is loaded, so that the first one to plan does not wait for it; where it only has to be loaded, the first pages
# come before it.
warming = threading.Timer(LOADS_AFTER_S if is_compiled() else 0.0, load)
warming.daemon = True
warming.start()
