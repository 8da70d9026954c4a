"""The commands."""

import argparse
import errno
import signal
import sys
from types import FrameType

from ops.base import Stop, say


def _parser() -> argparse.ArgumentParser:
    parser = argparse.ArgumentParser(prog="./crumb", description="Bell Crumb, from one command.")
    commands = parser.add_subparsers(dest="command", required=True, metavar="COMMAND")
    start = commands.add_parser("start", help="install what is missing, build, and serve")
    start.add_argument("--empty", action="store_true", help="without the demo kitchen")
    start.add_argument("--port", type=int, default=8642)
    start.add_argument("--lan", action="store_true", help="let a tablet in this network reach it")
    start.add_argument("--plain", action="store_true", help="with --lan: HTTP instead of HTTPS")
    commands.add_parser("stop", help="stop it; the data stays")
    test = commands.add_parser("test", help="run every test and check")
    test.add_argument(
        "part",
        nargs="?",
        default="all",
        choices=["all", "core", "server", "tools", "web", "e2e", "checks"],
    )
    test.add_argument("names", nargs="*", help="single test modules or tests")
    commands.add_parser("bench", help="measure: ratios and medians, as a table")
    commands.add_parser("golden", help="make the golden tables again, to be read in the diff")
    mutate = commands.add_parser("mutate", help="plant mistakes and see which the tests notice")
    mutate.add_argument("subject", nargs="?", default="all", help="core, server, web or one name")
    mutate.add_argument("--each", type=int, help="at most so many a subject")
    fuzz = commands.add_parser("fuzz", help="ask the API nonsense in three roles; 0 answers of 500")
    fuzz.add_argument("--minutes", type=float, default=6)
    load = commands.add_parser("load", help="fifty tablets and eight probes at once, and attackers")
    load.add_argument("--seconds", type=float, default=60)
    load.add_argument("--book", action="store_true", help="a book of 20 000 batches instead")
    commands.add_parser("pictures", help="take the pictures in docs/screenshots again")
    compute = commands.add_parser("compute", help="the craft from the command line (JSON in, out)")
    compute.add_argument("args", nargs=argparse.REMAINDER)
    probe = commands.add_parser("probe", help="run one more simulated probe thermometer")
    probe.add_argument("--url", default="http://127.0.0.1:8642")
    probe.add_argument("--token", required=True)
    probe.add_argument("--channels", type=int, default=1, choices=(1, 2, 3, 4))
    scale = commands.add_parser("scale", help="run one more simulated scale")
    scale.add_argument("--url", default="http://127.0.0.1:8642")
    scale.add_argument("--token", required=True)
    commands.add_parser("schema", help="write the OpenAPI document and the front end's types")
    commands.add_parser("format", help="format both sides")
    commands.add_parser("lock", help="lock the Python packages again")
    manage = commands.add_parser("manage", help="Django's own commands")
    manage.add_argument("args", nargs=argparse.REMAINDER)
    for name in ("backup", "restore"):
        keep = commands.add_parser(name, help=f"{name} the kitchen's data")
        keep.add_argument("file")
    return parser


def _run(options: argparse.Namespace) -> int:
    from ops import checks, keep, serve

    match options.command:
        case "start":
            return serve.start(
                empty=options.empty, port=options.port, lan=options.lan, plain=options.plain
            )
        case "stop":
            return serve.stop()
        case "test":
            return checks.test(options.part, options.names)
        case "fuzz":
            return checks.in_demo("ops.fuzz", str(options.minutes))
        case "load":
            if options.book:
                return checks.in_demo("ops.long_book")
            return checks.in_demo("ops.load", str(options.seconds))
        case "golden":
            return checks.golden()
        case "mutate":
            return checks.mutate(options.subject, options.each)
        case "bench":
            return checks.in_demo("ops.bench")
        case "pictures":
            return checks.in_demo("ops.pictures")
        case "probe":
            return serve.stand_in(options.url, options.token, channels=options.channels).wait()
        case "scale":
            return serve.stand_in(options.url, options.token, kind="scale").wait()
        case "schema":
            return checks.write_schema()
        case "format":
            return checks.format_all()
        case "lock":
            return checks.lock()
        case "manage":
            return checks.manage(options.args)
        case "backup":
            return keep.backup(options.file)
        case _:
            return keep.restore(options.file)


def _told_to_end(number: int, _: FrameType | None) -> None:
    """Ended from outside, a command still puts away what it began: a store of its own."""
    raise SystemExit(128 + number)


def main(args: list[str]) -> int:
    """Run one command; returns its exit code."""
    signal.signal(signal.SIGTERM, _told_to_end)
    try:
        if args[:1] == ["compute"]:
            # Only before anything is installed: afterwards ``crumb`` goes straight to the craft.
            raise Stop(
                "Nothing is installed yet. Run ./crumb start (or ./crumb test core) once.", 3
            )
        return _run(_parser().parse_args(args))
    except Stop as stop:
        print(stop, file=sys.stderr, flush=True)
        return stop.code
    except OSError as error:
        if error.errno == errno.ENOSPC:
            print("The disk is full. Free some space and run this again.", file=sys.stderr)
            return 1
        if error.errno in (errno.EACCES, errno.EPERM, errno.EROFS):
            print(
                f"{error.filename} belongs to somebody else. Run Bell Crumb as the user who "
                "started it first, or clone it into a folder of your own.",
                file=sys.stderr,
            )
            return 1
        raise
    except KeyboardInterrupt:
        say("")
        return 130
