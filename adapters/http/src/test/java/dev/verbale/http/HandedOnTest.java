package dev.verbale.http;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.difficult.HandedOn;
import java.net.http.HttpClient;
import java.net.http.HttpRequest.BodyPublisher;
import java.net.http.HttpResponse.BodyHandler;
import java.net.http.HttpResponse.BodySubscriber;
import java.util.Set;
import org.junit.jupiter.api.Tag;
import org.junit.jupiter.api.Test;

/** Every call of whatever stands before something of the client's reaches that. */
class HandedOnTest {

    @Test
    @Tag("newer-jdk")
    void every_call_is_handed_on() {
        assertThat(HandedOn.missing(WatchedClient.class, HttpClient.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedRequestBody.class, BodyPublisher.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedResponseBody.class, BodyHandler.class, Set.of()))
                .isEmpty();
        for (Class<?> inner : CapturedResponseBody.class.getDeclaredClasses())
            if (BodySubscriber.class.isAssignableFrom(inner))
                assertThat(HandedOn.missing(inner, BodySubscriber.class, Set.of()))
                        .isEmpty();
    }
}
