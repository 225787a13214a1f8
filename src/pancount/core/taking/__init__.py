"""Taking in a recipe: text as a baker wrote it becomes lines, grams with a band, questions, and a formula."""
