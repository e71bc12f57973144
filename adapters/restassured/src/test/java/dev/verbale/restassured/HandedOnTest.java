package dev.verbale.restassured;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.difficult.HandedOn;
import java.util.Set;
import org.apache.http.HttpEntity;
import org.apache.http.entity.HttpEntityWrapper;
import org.junit.jupiter.api.Test;

/** Every call of whatever stands before something of the client's reaches that. */
class HandedOnTest {

    @Test
    void every_call_is_handed_on() {
        Set<Class<?>> wrapper = Set.of(HttpEntityWrapper.class);
        assertThat(HandedOn.missing(CapturedRequestEntity.class, HttpEntity.class, wrapper))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedResponseEntity.class, HttpEntity.class, wrapper))
                .isEmpty();
    }
}
