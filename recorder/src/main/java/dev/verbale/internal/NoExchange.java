package dev.verbale.internal;

import dev.verbale.recorder.Exchange;
import java.time.Duration;

/** Takes everything and keeps nothing. */
enum NoExchange implements Exchange {
    NONE;

    @Override
    public Exchange client(String name) {
        return this;
    }

    @Override
    public Exchange protocol(String protocol) {
        return this;
    }

    @Override
    public Exchange url(String url) {
        return this;
    }

    @Override
    public Exchange requestHeader(String name, String value) {
        return this;
    }

    @Override
    public Exchange requestBody(byte[] body, String mediaType) {
        return this;
    }

    @Override
    public Exchange status(int status) {
        return this;
    }

    @Override
    public Exchange responseHeader(String name, String value) {
        return this;
    }

    @Override
    public Exchange responseBody(byte[] body, String mediaType) {
        return this;
    }

    @Override
    public Exchange responseBody(byte[] beginning, long size, String mediaType) {
        return this;
    }

    @Override
    public Exchange timing(String part, Duration took) {
        return this;
    }

    @Override
    public Exchange attribute(String name, String value) {
        return this;
    }

    @Override
    public void ended() {}

    @Override
    public void failed(Throwable failure) {}
}
