package dev.verbale.okhttp;

import static org.assertj.core.api.Assertions.assertThat;

import dev.verbale.http.difficult.HandedOn;
import java.util.Set;
import okhttp3.RequestBody;
import okhttp3.ResponseBody;
import org.junit.jupiter.api.Test;

/** Every call of whatever stands before something of the client's reaches that. */
class HandedOnTest {

    @Test
    void every_call_is_handed_on() {
        assertThat(HandedOn.missing(CapturedRequestBody.class, RequestBody.class, Set.of()))
                .isEmpty();
        assertThat(HandedOn.missing(CapturedResponseBody.class, ResponseBody.class, Set.of()))
                .as("those that read the source, which is handed on")
                .isSubsetOf("byteStream[]", "bytes[]", "byteString[]", "charStream[]", "close[]", "string[]");
    }
}
