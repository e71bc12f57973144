/** Values as every database takes them. */
@NullMarked
package dev.verbale.query.values;

import org.jspecify.annotations.NullMarked;
