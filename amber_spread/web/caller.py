"""The client behind a request that may take long."""

from typing import Annotated

from fastapi import Depends, Request

from amber_spread.jobs.queue import Owner
from amber_spread.web.clients import client_of


class Caller:
    """The client behind a request that may take long. They wait for it on purpose, so the usual time limit is off."""

    def __init__(self, request: Request) -> None:
        self.owner = Owner(client_of(request))
        self.is_gone = request.is_disconnected
        request.state.waits_on_purpose = True


async def _caller(request: Request) -> Caller:
    return Caller(request)


CallerOf = Annotated[Caller, Depends(_caller)]
