"""Print the OpenAPI document: `python -m tuyere.web.openapi`."""

import json

from tuyere.web.app import openapi_app

if __name__ == "__main__":
    app = openapi_app()
    with app.app_context():
        print(json.dumps(app.api_doc, indent=1, sort_keys=True, default=str))
