"""The JSON Schema of the build file."""

from typing import Any

from urgens.document.build import Build


def schema() -> dict[str, Any]:
    """Return the JSON Schema that a build file is written against."""
    document = Build.model_json_schema()
    document["$schema"] = "https://json-schema.org/draft/2020-12/schema"
    document["title"] = "Urgens build"
    return document
