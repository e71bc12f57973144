package dev.verbale.spring;

import java.net.http.HttpClient;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.JdkClientHttpRequestFactory;

/** Spring over the JDK's client. */
class WatchedAsBareOverTheJdksTest extends RestClientContract {

    @Override
    protected ClientHttpRequestFactory factory() {
        HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NORMAL)
                .connectTimeout(connecting)
                .build();
        var factory = new JdkClientHttpRequestFactory(client);
        factory.setReadTimeout(patience);
        return factory;
    }

    /** What is cancelled after a time says so, or nothing, as its threads come. */
    @Override
    protected String withoutRandomness(String thrown) {
        return thrown.replace("Request cancelled", "null");
    }

    @Override
    protected boolean givesWhatCame() {
        return false;
    }
}
