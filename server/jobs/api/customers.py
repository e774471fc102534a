"""Customers of a workshop."""

from typing import Annotated

from django.db import IntegrityError, transaction
from django.shortcuts import get_object_or_404
from ninja import Router, Schema
from pydantic import Field

from keel.design.base import PLAIN, Name, Note
from server.http.errors import ErrorOut, refused
from server.jobs.models import Customer
from server.workshop.guard import Request, anyone, writer

router = Router(tags=["customers"])


class CustomerIn(Schema):
    """A customer's record."""

    name: Name
    contact: Annotated[str, Field(max_length=200, pattern=PLAIN)] = ""
    note: Note = ""


class CustomerOut(CustomerIn):
    """A customer's record as kept."""

    id: int


@router.get("customers", response=list[CustomerOut], auth=anyone)
def customers(request: Request) -> list[Customer]:
    """All customers, by name."""
    return list(request.user.workshop.customers.all())


@router.post("customers", response={201: CustomerOut, 422: ErrorOut}, auth=writer)
def add_customer(request: Request, data: CustomerIn) -> tuple[int, Customer]:
    """A new customer."""
    return 201, _kept(Customer(workshop=request.user.workshop), data)


@router.put("customers/{customer_id}", response={200: CustomerOut, 404: ErrorOut, 422: ErrorOut}, auth=writer)
def change_customer(request: Request, customer_id: int, data: CustomerIn) -> Customer:
    """Change a customer's record."""
    return _kept(get_object_or_404(Customer, pk=customer_id, workshop=request.user.workshop), data)


def _kept(customer: Customer, data: CustomerIn) -> Customer:
    for name, value in data.dict().items():
        setattr(customer, name, value)
    try:
        with transaction.atomic():
            customer.save()
    except IntegrityError as error:
        raise refused("name", data.name, "a name not used yet", "There is a customer of that name.") from error
    return customer
