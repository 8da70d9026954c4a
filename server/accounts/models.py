"""People who sign in. Passwords are hashed by Django, failed sign-ins throttled by axes."""

from typing import ClassVar

from django.contrib.auth.models import AbstractBaseUser, BaseUserManager
from django.db import models


class UserManager(BaseUserManager["User"]):
    """Makes users by e-mail address."""

    def create_user(self, email: str, password: str, name: str) -> "User":
        """A new user; the address is kept in lower case."""
        user = self.model(email=email.strip().lower(), name=name)
        user.set_password(password)
        user.save(using=self._db)
        return user


class User(AbstractBaseUser):
    """One person. What they may do is said by their membership of a kitchen."""

    email = models.EmailField(unique=True)
    name = models.CharField(max_length=80)
    is_active = models.BooleanField(default=True)

    USERNAME_FIELD = "email"
    REQUIRED_FIELDS: ClassVar[list[str]] = ["name"]
    objects = UserManager()

    def __str__(self) -> str:
        return self.name
