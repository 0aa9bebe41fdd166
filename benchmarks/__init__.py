"""Speed ratios against reference libraries, each pair measured in one run."""
