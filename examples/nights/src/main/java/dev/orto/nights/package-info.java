/** A past for the demo, which has none: nights that never were. */
@NullMarked
package dev.orto.nights;

import org.jspecify.annotations.NullMarked;
