package dev.verbale.okhttp;

import dev.verbale.hostile.AdapterCallsContract;

class HostileCallsTest extends AdapterCallsContract {}
