package dev.verbale.spring;

import java.io.IOException;
import java.io.OutputStream;
import org.springframework.http.StreamingHttpOutputMessage;
import org.springframework.http.client.ClientHttpRequest;

/** One whose body is written while it is sent, and stays so. */
final class CapturedStreamingRequest extends CapturedRequest implements StreamingHttpOutputMessage {

    private final StreamingHttpOutputMessage streaming;

    CapturedStreamingRequest(ClientHttpRequest request, StreamingHttpOutputMessage streaming) {
        super(request);
        this.streaming = streaming;
    }

    @Override
    public void setBody(Body body) {
        streaming.setBody(new Body() {
            @Override
            public void writeTo(OutputStream out) throws IOException {
                body.writeTo(captured(out));
            }

            @Override
            public boolean repeatable() {
                return body.repeatable();
            }
        });
    }
}
