package dev.verbale;

import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * Says what tests are about. On a method, a class or a package; what is said nearer to the test replaces what is said
 * farther from it, and links are added up. Subclasses inherit it.
 *
 * <pre>{@code
 * @About(value = "Swapping, also of a day with itself", severity = "grave", owner = "Ada", links = "GARDEN-17")
 * class SwapTest {}
 * }</pre>
 *
 * @since 0.2.0
 */
@Inherited
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.METHOD, ElementType.TYPE, ElementType.PACKAGE})
public @interface About {
    /** What the test is about, for somebody who does not read its code. */
    String value() default "";

    /** How grave it is when it fails, in the suite's own words. */
    String severity() default "";

    /** Who cares for it. */
    String owner() default "";

    /** What belongs to it: whole addresses, or names that the settings turn into addresses, such as {@code GARDEN-17}. */
    String[] links() default {};
}
