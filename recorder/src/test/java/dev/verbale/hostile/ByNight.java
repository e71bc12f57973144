package dev.verbale.hostile;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import org.junit.jupiter.api.condition.EnabledIfSystemProperty;

/** Runs when {@code bin/matrix} runs: what starts builds or JVMs of its own, and has kin that runs by day. */
@Target({ElementType.TYPE, ElementType.METHOD})
@Retention(RetentionPolicy.RUNTIME)
@EnabledIfSystemProperty(named = "verbale.night", matches = "true", disabledReason = "by night")
public @interface ByNight {}
