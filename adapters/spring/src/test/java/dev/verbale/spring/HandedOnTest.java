package dev.verbale.spring;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.difficult.HandedOn;
import java.util.Set;
import org.junit.jupiter.api.Test;
import org.springframework.http.client.ClientHttpRequest;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.ClientHttpResponse;

/** Every call of whatever stands before something of the client's reaches that. */
class HandedOnTest {

    @Test
    void every_call_is_handed_on() {
        assertThat(HandedOn.missing(CapturedResponse.class, ClientHttpResponse.class, Set.of()))
                .as("one that asks for the status, which is handed on, and that newer versions have no more")
                .isSubsetOf("getRawStatusCode[]");
        assertThat(HandedOn.missing(CapturedRequest.class, ClientHttpRequest.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedStreamingRequest.class, ClientHttpRequest.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(RecordingRequestFactory.class, ClientHttpRequestFactory.class, Set.of()))
                .isEmpty();
    }
}
