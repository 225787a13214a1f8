"""The most of everything that is taken: more than any baker brings, and so much that each request stays quick.

One table for the whole application (docs/promises.md shows it); how many bytes of a body are read at all is in
`api/sizes.py`. Common practice, no source: each stands well above the largest recipe that was met.
"""




LINES = 100
"""Lines in a formula, in all its stages and beside the dough. The largest met, a holiday bread with its glazes, has 60."""
STAGES = 30
BESIDE = 20
FORMULA_WAYS = 8
"""Ways to make one formula."""
STEPS = 60
"""Steps of a way. The longest method met has 34."""
TAKES = 200
"""What all steps of a way name to go in."""
WORDS_OF_STEP = 10_000
"""What is written of one step. [characters]"""
RISES = 12
"""Of them, rises: each is summed over its own temperature, and what would make it quicker or slower is sought."""
METHOD = 60_000
"""All steps of a way together. [characters]"""
METHOD_READ = 20_000
"""So much of a method's text is read into steps; what is over stays as notes. [characters]"""
TARGETS = 12
LIMITS = 12
OWN_INGREDIENTS = 500
"""That a kitchen added or changed."""
WAYS = 40
"""Measures, and other names, of one ingredient."""

RECIPE = 60_000
"""The text of a recipe that is taken in: a recipe of 100 lines with a long method is a tenth of this. [characters]"""
RECIPE_THINGS = 200
"""Things to weigh in it. Of more than a formula's lines none is made, but it is read."""
RECIPE_LINES = 1_000
"""Of it, the first so many lines are read."""
PAGE_TAGS = 100_000
"""Tags and comments in a saved page; a long page of a recipe has some 10 000."""
PAGE_ATTRIBUTES = 300_000
"""Of all its tags, by the signs between name and value."""
FILE_MEMBERS = 50_000
"""Fields and entries in a file of JSON, by its commas."""
TABLE_ROWS = 1_000

FORMULAS = 1_000
"""In a kitchen, put away ones included."""
TAKINGS = 1_000
"""Recipes taken in and kept."""
PANS = 1_000
WEIGHINGS = 1_000
"""Of a kitchen's own cups and spoons."""
DAYS = 1_000
"""Baking days kept in a kitchen."""
DAY_PRODUCTS = 12
"""Counts in one day; the fullest day met has 9."""
ABSENCES = 20
BAKES = 20_000
"""Bakes kept in a kitchen: ten a day for five years."""
BAKES_AT_ONCE = 60
"""Bakes under way at the bench."""
BENCH_MIXES = 12
"""Mixes in one bake."""
BENCH_WRITERS = 200
"""Windows that write of one bake."""
BENCH_EVENTS = 3_000
"""Of one bake: a dough of 200 pieces, each weighed, has some 500."""
BENCH_SENT = 200
"""Events sent at once; what was done while the network was away goes in several sendings."""
BENCH_READINGS = 100
"""Reports of a scale sent at once."""
BOOK_PHOTOS = 12
"""Photos of one bake."""
PHOTOS = 10_000
"""Photos kept in a kitchen: some 2.5 GB."""
PHOTO_PIXELS = {"JPEG": 60_000_000, "progressive JPEG": 36_000_000, "PNG": 25_000_000, "WEBP": 12_000_000}
"""Of a photo as it comes: telephones take 12 to 50 million. A JPEG is read near the size that is kept; all of the others lies in memory at once."""
TASTINGS = 1_000
BOOK_POINTS = 2_000
"""Bakes drawn in one chart, the last ones."""
BOOK_LEARNED = 400
"""Bakes that are asked for what they say of the kitchen's figures, the last ones; of a figure the last forty count."""
