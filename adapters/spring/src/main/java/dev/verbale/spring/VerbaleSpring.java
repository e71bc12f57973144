package dev.verbale.spring;

import dev.verbale.spi.Capture;
import java.util.ArrayList;
import java.util.List;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.ClientHttpRequestInterceptor;
import org.springframework.web.client.RestTemplate;

/**
 * Makes Spring's {@code RestClient} and {@code RestTemplate} tell their exchanges:
 *
 * <pre>{@code
 * RestClient client = RestClient.builder()
 *         .requestFactory(VerbaleSpring.watch(new JdkClientHttpRequestFactory()))
 *         .build();
 * RestTemplate template = VerbaleSpring.watch(new RestTemplate());
 * }</pre>
 *
 * <p>It stands behind all interceptors, where requests are as Spring hands them to the client underneath, and makes no stream a
 * buffer, as an interceptor would. An exchange is written when its response's body was read or closed. What the client underneath
 * adds or follows by itself, such as redirects and headers of its own, is not seen from here: watch that client instead.
 *
 * @since 0.2.0
 */
public final class VerbaleSpring {

    private VerbaleSpring() {}

    /** A factory that does what {@code factory} does; {@code factory} itself where it is watched already. */
    public static ClientHttpRequestFactory watch(ClientHttpRequestFactory factory) {
        boolean isPlain = factory != null && !(factory instanceof RecordingRequestFactory);
        return isPlain && Capture.current().isRecording() ? new RecordingRequestFactory(factory) : factory;
    }

    /** {@code template} itself, whose request factory is watched from now on. */
    public static RestTemplate watch(RestTemplate template) {
        if (template == null || !Capture.current().isRecording()) return template;
        List<ClientHttpRequestInterceptor> interceptors = new ArrayList<>(template.getInterceptors());
        template.setInterceptors(List.of()); // with some, the factory it gives stands before them
        template.setRequestFactory(watch(template.getRequestFactory()));
        template.setInterceptors(interceptors);
        return template;
    }
}
