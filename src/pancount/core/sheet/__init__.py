"""The weigh sheet: a counted formula in mixing order, rounded to the kitchen's scales so that it adds up. Uses all but `taking`."""
