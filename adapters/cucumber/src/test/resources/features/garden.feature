@garden
Feature: The rota
  Who waters which day.

  Background:
    Given a garden with these beds
      | bed   | crop  |
      | north | Kale  |
      | south | Basil |

  @smoke
  Scenario: Ada swaps a day
    Ada and Dario change places.
    When Ada swaps Monday with Dario
    Then Dario waters on Monday

  Scenario: Nobody waters
    When nobody waters
    Then the Kale is green

  Scenario: Nobody waters
    When it rains

  Scenario Outline: Watering <crop>
    When <who> waters the <crop>
    Then the <crop> is green

    Examples:
      | who   | crop  |
      | Ada   | Kale  |
      | Dario | Basil |

    Examples: by hand
      | who | crop  |
      | Mai | a \| b |

  Scenario Outline: Every gate
    When the gate is locked

    Examples:
      | gate  | password |
      | north | s3cr3t!! |
      | south | s3cr3t?? |

  Rule: In winter

    Example: The beds rest
      Given a letter
        """
        Dear neighbours,
        nobody waters in winter.
        """

    Scenario: It snows
      When it snows

    Scenario: Nobody comes
      When the gate is forgotten

    Scenario: It is too cold
      When it freezes
      Then the Kale is green
