package dev.verbale.spring;

import dev.verbale.hostile.ByNight;
import java.util.concurrent.TimeUnit;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.springframework.http.client.ClientHttpRequestFactory;
import org.springframework.http.client.HttpComponentsClientHttpRequestFactory;

/** Spring over Apache's client, which unpacks what is coded, brotli too. */
@ByNight
class WatchedAsBareOverApachesTest extends RestClientContract {

    @Override
    protected ClientHttpRequestFactory factory() {
        return new HttpComponentsClientHttpRequestFactory(HttpClients.custom()
                .setConnectionManager(PoolingHttpClientConnectionManagerBuilder.create()
                        .setMaxConnPerRoute(300)
                        .setMaxConnTotal(300)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setSocketTimeout((int) patience.toMillis(), TimeUnit.MILLISECONDS)
                                .setConnectTimeout((int) connecting.toMillis(), TimeUnit.MILLISECONDS)
                                .build())
                        .build())
                .build());
    }
}
