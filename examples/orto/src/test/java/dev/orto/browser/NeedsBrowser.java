package dev.orto.browser;

import java.lang.annotation.ElementType;
import java.lang.annotation.Inherited;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.extension.ConditionEvaluationResult;
import org.junit.jupiter.api.extension.ExecutionCondition;
import org.junit.jupiter.api.extension.ExtendWith;
import org.junit.jupiter.api.extension.ExtensionContext;

/** These tests are skipped, and say why, where there is no browser to drive. */
@Target(ElementType.TYPE)
@Retention(RetentionPolicy.RUNTIME)
@Inherited
@Tag("browser")
@ExtendWith(NeedsBrowser.Condition.class)
public @interface NeedsBrowser {

    /** Looks for the browser and its driver. */
    class Condition implements ExecutionCondition {
        @Override
        public ConditionEvaluationResult evaluateExecutionCondition(ExtensionContext context) {
            return Browser.missing()
                    .map(ConditionEvaluationResult::disabled)
                    .orElseGet(() -> ConditionEvaluationResult.enabled("there is a browser"));
        }
    }
}
