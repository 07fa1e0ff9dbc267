"""The application as a WSGI server takes it; it refuses to start on data it does not fit."""

import os
import threading

from django.core.wsgi import get_wsgi_application

from kettle.plant.ready import load

os.environ.setdefault("DJANGO_SETTINGS_MODULE", "web.settings")
application = get_wsgi_application()

from web.running import schema  # noqa: E402, since models are loaded first

if refusal := schema.difference():
    raise SystemExit(refusal)

# Done when the plant model is loaded, so that the first one to plan does not wait for it.
warming = threading.Thread(target=load, daemon=True, name="plant model")
warming.start()
