package dev.verbale.spring;

import dev.verbale.spi.Capture;
import java.io.IOException;
import java.net.URI;
import org.springframework.http.HttpMethod;
import org.springframework.http.StreamingHttpOutputMessage;
import org.springframework.http.client.ClientHttpRequest;
import org.springframework.http.client.ClientHttpRequestFactory;

/** Makes requests that do what those of another factory do, and tell their exchanges. */
final class RecordingRequestFactory implements ClientHttpRequestFactory {

    private final ClientHttpRequestFactory factory;

    RecordingRequestFactory(ClientHttpRequestFactory factory) {
        this.factory = factory;
    }

    @Override
    public ClientHttpRequest createRequest(URI address, HttpMethod method) throws IOException {
        ClientHttpRequest request = factory.createRequest(address, method);
        if (!Capture.current().isRecording()) return request;
        return request instanceof StreamingHttpOutputMessage streaming
                ? new CapturedStreamingRequest(request, streaming)
                : new CapturedRequest(request);
    }
}
