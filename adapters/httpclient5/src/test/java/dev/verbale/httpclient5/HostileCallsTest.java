package dev.verbale.httpclient5;

import dev.verbale.hostile.AdapterCallsContract;

class HostileCallsTest extends AdapterCallsContract {}
