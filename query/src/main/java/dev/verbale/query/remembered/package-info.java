/** The tables of a history, which are read from its files row by row. */
@NullMarked
package dev.verbale.query.remembered;

import org.jspecify.annotations.NullMarked;
