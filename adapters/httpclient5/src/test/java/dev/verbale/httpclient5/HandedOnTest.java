package dev.verbale.httpclient5;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.difficult.HandedOn;
import java.io.InputStream;
import java.util.Set;
import org.apache.hc.client5.http.async.AsyncExecCallback;
import org.apache.hc.core5.http.HttpEntity;
import org.apache.hc.core5.http.impl.io.ChunkedInputStream;
import org.apache.hc.core5.http.io.entity.HttpEntityWrapper;
import org.apache.hc.core5.http.nio.AsyncDataConsumer;
import org.apache.hc.core5.http.nio.AsyncEntityProducer;
import org.junit.jupiter.api.Test;

/** Every call of whatever stands before something of the client's reaches that. */
class HandedOnTest {

    private static final Set<Class<?>> WRAPPER = Set.of(HttpEntityWrapper.class);

    @Test
    void every_call_is_handed_on() throws Exception {
        assertThat(HandedOn.missing(CapturedRequestEntity.class, HttpEntity.class, WRAPPER))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedResponseEntity.class, HttpEntity.class, WRAPPER))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedProducer.class, AsyncEntityProducer.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturingConsumer.class, AsyncDataConsumer.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(
                        Class.forName(RecordingAsyncExchanges.class.getName() + "$CapturingCallback"),
                        AsyncExecCallback.class,
                        Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedChunks.class, ChunkedInputStream.class, Set.of()))
                .as("those of any stream read by the ones that are handed on")
                .isSubsetOf(
                        "mark[int]",
                        "markSupported[]",
                        "read[byte[]]",
                        "readAllBytes[]",
                        "readNBytes[byte[], int, int]",
                        "readNBytes[int]",
                        "reset[]",
                        "skip[long]",
                        "skipNBytes[long]",
                        "transferTo[OutputStream]");
        assertThat(InputStream.class).isAssignableFrom(CapturedChunks.class);
    }
}
