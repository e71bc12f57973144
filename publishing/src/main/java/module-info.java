/** Puts pages of runs where anyone can read them. */
module dev.verbale.publishing {
    requires transitive dev.verbale.viewer;
    requires software.amazon.awssdk.awscore;
    requires software.amazon.awssdk.core;
    requires software.amazon.awssdk.http;
    requires software.amazon.awssdk.http.urlconnection;
    requires software.amazon.awssdk.services.s3;
    requires static transitive org.apiguardian.api;
    requires static transitive org.jspecify;

    exports dev.verbale.publishing;
}
