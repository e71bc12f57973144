package dev.verbale.spring;

import java.net.http.HttpClient;
import java.time.Duration;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.JdkClientHttpRequestFactory;

/** Spring over the JDK's client. */
class WatchedAsBareOverTheJdksTest extends RestClientContract {

    @Override
    protected ClientHttpRequestFactory factory() {
        HttpClient client = HttpClient.newBuilder()
                .followRedirects(HttpClient.Redirect.NORMAL)
                .connectTimeout(Duration.ofMillis(600))
                .build();
        var factory = new JdkClientHttpRequestFactory(client);
        factory.setReadTimeout(patience);
        return factory;
    }

    @Override
    protected boolean givesWhatCame() {
        return false;
    }
}
