/** Files in YAML that people write, with line and column of what is wrong in them. */
@NullMarked
package dev.verbale.rules.yaml;

import org.jspecify.annotations.NullMarked;
