"""Prints the OpenAPI document: `python -m tuyere.web.openapi`."""

import json

from tuyere.web.app import openapi_app
from tuyere.web.described import complete

if __name__ == "__main__":
    described = openapi_app()
    with described.app_context():
        print(json.dumps(complete(described, described.api_doc), indent=1, sort_keys=True, default=str))
