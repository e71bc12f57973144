package dev.verbale;

import java.io.InputStream;
import java.time.Duration;
import org.jspecify.annotations.Nullable;

/** Takes everything and keeps nothing. */
final class NoExchange implements Exchange {

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
    public @Nullable String traceParent() {
        return null;
    }

    @Override
    public Exchange requestHeader(String name, String value) {
        return this;
    }

    @Override
    public Exchange clearRequestHeaders() {
        return this;
    }

    @Override
    public Exchange next(String method, String url) {
        return this;
    }

    @Override
    public Exchange onTestEnd(Runnable action) {
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
    public Exchange requestBody(BoundedBuffer body, String mediaType) {
        return this;
    }

    @Override
    public Exchange requestPart(String name, @Nullable String fileName, BoundedBuffer content, String mediaType) {
        return this;
    }

    @Override
    public Exchange requestPart(String name, @Nullable String fileName, byte[] content, String mediaType) {
        return this;
    }

    @Override
    public Exchange responseBody(BoundedBuffer body, String mediaType) {
        return this;
    }

    @Override
    public InputStream responseBody(InputStream body, String mediaType) {
        return body;
    }

    @Override
    public BoundedBuffer buffer() {
        return new BoundedBuffer(0);
    }

    @Override
    public Exchange timing(String part, Duration duration) {
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

    /** Gathers nothing: where nothing is recorded a failed check fails its test at once. */
    @Override
    public boolean checked(String name, @Nullable Throwable failure) {
        return false;
    }
}
