"""Every screen in a language nobody speaks, read by a US cook: no English left on it, nothing cut
off, no metric temperature and no quantity that was left open."""

import ast
import os
import re
import subprocess
import sys
from pathlib import Path

from django.contrib.staticfiles.testing import StaticLiveServerTestCase
from django.core.cache import cache
from django.core.management import call_command
from django.db import connection

from batches.models import Batch
from bellcrumb.words.pseudo import PSEUDO
from demo import kitchen as demo
from e2e.base import ROOT, browser
from formulas.models import Dessert
from kitchen.models import Kitchen, Member
from ops.mariadb import free_port
from ops.serve import await_served, gunicorn

# In a process of its own: a language is told when the program starts.
LOAD = """
import django
django.setup()
from demo import kitchen, weeks
weeks.load_weeks(kitchen.load("a-token"))
"""
READ = """() => {
  const read = [];
  const walk = document.createTreeWalker(document.body, NodeFilter.SHOW_TEXT);
  while (walk.nextNode()) {
    const inside = walk.currentNode.parentElement;
    if (inside && !["SCRIPT", "STYLE", "TEXTAREA"].includes(inside.tagName))
      read.push(walk.currentNode.textContent);
  }
  for (const name of ["aria-label", "title", "placeholder", "alt", "aria-valuetext"])
    for (const e of document.querySelectorAll(`[${name}]`)) read.push(e.getAttribute(name));
  return read;
}"""
CUT = """() => [...document.querySelectorAll("button, label, th, dt, a, h1, h2, h3, legend")]
  .filter((e) => e.clientWidth > 2 && e.scrollWidth > e.clientWidth + 1
    && getComputedStyle(e).overflowX !== "visible")
  .map((e) => e.textContent)"""
# What a cook wrote or a supplier printed is in their language, and dates are the browser's.
OTHERS = "schema.org tbsp tsp cups sticks chrome linux chf sugar water"
DATE = re.compile(
    r"\b(?:Mon|Tue|Wed|Thu|Fri|Sat|Sun)(?:day|sday|nesday|rsday|urday)?\b"
    r"|\b(?:Jan|Feb|Mar|Apr|May|Jun|Jul|Aug|Sep|Oct|Nov|Dec)[a-z]*\b|\b[AP]M\b"
)
# Amounts of a US kitchen, as cups and spoons are marked.
MEASURED = re.compile(
    r"[\d¼½¾⅓⅔⅛⅜⅝⅞][ \u202f](?:cups?|c|tbsp|tsp|sticks?|oz|lb|fl oz|qt|in|sq in)\b"
)
# Plain words one after another.
RUN = re.compile(r"(?<![^\W\d_])[A-Za-zé]{3,}(?:[ ’'/-]+[A-Za-zé]{2,})*(?![^\W\d_])")
# A temperature or a difference of them in metric, and a quantity nobody closed. The choice of units
# names both, and a label on the cold has both for whoever reads it.
METRIC = re.compile(r"(?<!g )°C(?! / )|\d[ \u202f]K\b|[\ue0c0-\ue0c5]")


def written() -> str:
    """Everything the demo kitchen's people wrote."""
    found = [OTHERS]
    for path in (ROOT / "server" / "demo").glob("*.py"):
        tree = ast.parse(path.read_text("utf-8"))
        found += [
            n.value
            for n in ast.walk(tree)
            if isinstance(n, ast.Constant) and isinstance(n.value, str)
        ]
    return "\n".join(found).lower()


class LanguageTest(StaticLiveServerTestCase):
    maxDiff = None

    @classmethod
    def setUpClass(cls):
        os.environ["DJANGO_ALLOW_ASYNC_UNSAFE"] = "true"
        super().setUpClass()

    def setUp(self):
        cache.clear()
        call_command("collectstatic", verbosity=0, interactive=False)
        env = os.environ | {
            "CRUMB_DB_NAME": str(connection.settings_dict["NAME"]),
            "CRUMB_LANGUAGE": PSEUDO,
        }
        subprocess.run([sys.executable, "-c", LOAD], env=env, cwd=ROOT / "server", check=True)
        port = free_port()
        log = Path(os.environ["CRUMB_HOME"]) / f"language-{port}.log"
        server = gunicorn(env, f"127.0.0.1:{port}", log, workers=1)
        self.addCleanup(server.wait)
        self.addCleanup(server.terminate)
        self.url = f"http://127.0.0.1:{port}"
        await_served(f"{self.url}/api/session", server, None, log)
        self.known = written()

    def pages(self):
        home = f"/k/{Kitchen.objects.get().id}"
        yield from (f"{home}/{p}" for p in (
            "", "day", "eggs", "compare", "files", "rehearse", "book", "record", "kitchen",
            "people", "you",
        ))  # fmt: skip
        for name in ("Quince and rye tart", "Barley caramel flan", "Bay leaf pastry cream"):
            dessert = f"{home}/d/{Dessert.objects.get(name=name).id}"
            yield from (
                f"{dessert}{p}" for p in ("", "/whole", "/stove", "/oven", "/cold", "/card")
            )
        for batch in Batch.objects.order_by("-started_at")[:3]:
            yield f"{home}/book/{batch.id}"

    def english(self, texts):
        for text in texts:
            for run in RUN.findall(MEASURED.sub(";", DATE.sub(" ", text))):
                if run.lower() not in self.known:
                    yield f"{run!r} in {text.strip()[:80]!r}"

    def test_every_page_is_in_one_language_and_in_one_cooks_units_and_nothing_is_cut_off(self):
        Member.objects.filter(user__email=demo.CHEF).update(units="us")
        page = browser().new_context(viewport={"width": 390, "height": 844}).new_page()
        page.goto(f"{self.url}/")
        page.locator("input[type=password]").wait_for()
        self.assertEqual(page.evaluate("document.documentElement.lang"), PSEUDO)
        page.locator("input").first.fill(demo.CHEF)
        page.locator("input[type=password]").fill(demo.PASSWORD)
        page.locator("button[type=submit]").click()
        page.wait_for_url("**/k/*")
        left, cut, metric = {}, {}, {}
        for path in self.pages():
            page.goto(self.url + path)
            page.locator("h1, h2").first.wait_for()
            page.wait_for_load_state("networkidle")
            self.assertEqual(page.url, self.url + path)
            texts = page.evaluate(READ)
            left[path] = sorted(set(self.english(texts)))
            metric[path] = [t for t in texts if METRIC.search(t)]
            wide = page.evaluate("document.documentElement.scrollWidth - innerWidth")
            cut[path] = page.evaluate(CUT) + ([f"{wide} px too wide"] if wide > 0 else [])
        self.assertEqual({p: w for p, w in left.items() if w}, {})
        self.assertEqual({p: w for p, w in metric.items() if w}, {})
        self.assertEqual({p: w for p, w in cut.items() if w}, {})
