/**
 * Content in the form in which it is attached: texts, tables and images as bytes. Pure conversion; it knows nothing of
 * recording. Not exported.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.content;

import org.jspecify.annotations.NullMarked;
