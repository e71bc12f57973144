/**
 * Evidence out of a browser that Selenium drives.
 *
 * <p>No parameter or result is null unless marked.
 */
@NullMarked
package dev.verbale.selenium;

import org.jspecify.annotations.NullMarked;
