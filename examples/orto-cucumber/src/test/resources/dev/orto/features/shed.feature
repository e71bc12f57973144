@shed
Feature: The tool shed
  There is one key. Who takes it brings it back.

  Background:
    Given the garden is open

  Rule: One neighbour has the key

    Scenario: Elsa takes the key
      When Elsa takes the key
      Then the key is with Elsa

    Scenario: Bruno has to wait
      Given Elsa takes the key
      When Bruno takes the key
      Then the garden says
        """
        The key is with Elsa
        """

  Rule: The key comes back

    Scenario: Elsa brings it back
      Given Elsa takes the key
      When the key is brought back
      Then the key hangs on its hook
