/** The server that a team's runs are sent to, and shown by while they go and afterwards. */
module dev.verbale.hub {
    requires transitive dev.verbale.viewer;
    requires com.zaxxer.hikari;
    requires com.nimbusds.jose.jwt;
    requires oauth2.oidc.sdk;
    requires flyway.core;
    requires java.sql;
    requires org.eclipse.jetty.http;
    requires org.eclipse.jetty.io;
    requires org.eclipse.jetty.server;
    requires org.eclipse.jetty.util;
    requires org.jdbi.v3.core;
    requires org.slf4j;
    requires software.amazon.awssdk.core;
    requires software.amazon.awssdk.awscore;
    requires software.amazon.awssdk.http;
    requires software.amazon.awssdk.http.urlconnection;
    requires software.amazon.awssdk.utils;
    requires software.amazon.awssdk.services.s3;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.hub;

    opens dev.verbale.hub.tables;
}
