"""Requests made up from the API's own description: none may be answered with a server error."""

import schemathesis
from hypothesis import HealthCheck, given, settings
from schemathesis.checks import not_a_server_error
from schemathesis.specs.openapi.checks import content_type_conformance, response_schema_conformance

from amber_spread.jobs.command import job_worker
from amber_spread.store.migrate import migrate
from amber_spread.store.orders import OrderBook
from amber_spread.web.app import make_app
from amber_spread.web.notices import PATH as NOTICES
from tests.clients import OURS


def test_made_up_requests_are_answered_as_described(postgres, monkeypatch):
    monkeypatch.setenv("AMBER_HOSTS", "testserver")
    url = postgres.url("fuzz")
    book = OrderBook.at(url)
    migrate(book.engine)
    app = make_app(book)
    app.openapi()  # takes long the first time, and the loader waits ten seconds by the clock
    schema = schemathesis.openapi.from_asgi("/api/openapi.json", app)
    checks = [not_a_server_error, content_type_conformance, response_schema_conformance]

    with job_worker(url, 4):
        for result in schema.get_all_operations():
            operation = result.ok()
            if operation.path == NOTICES:
                continue  # answered without end

            @settings(max_examples=2, deadline=None, suppress_health_check=list(HealthCheck))
            def ask(case):
                case.call_and_validate(checks=checks, headers=dict(OURS))

            given(case=operation.as_strategy())(ask)()
    book.engine.dispose()
