package dev.verbale.junit4;

import dev.verbale.hostile.AdapterCallsContract;

class HostileCallsTest extends AdapterCallsContract {}
