"""Pan Count: from a formula to counted pans and a weigh sheet."""
