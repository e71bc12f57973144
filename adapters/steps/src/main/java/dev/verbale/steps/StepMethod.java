package dev.verbale.steps;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;

/**
 * A method whose calls are steps: on objects that {@link StepMethods#of} gave, or on all where {@link StepAgent} is.
 *
 * @since 0.2.0
 */
@Retention(RetentionPolicy.RUNTIME)
@Target(ElementType.METHOD)
public @interface StepMethod {
    /**
     * What the step is called: <code>{0}</code> is the first argument, and so on. Nothing stands for the method's name in
     * plain words.
     */
    String value() default "";

    /** The places, counted from 0, of arguments that are secret: masked here, and wherever they turn up afterwards. */
    int[] secret() default {};
}
