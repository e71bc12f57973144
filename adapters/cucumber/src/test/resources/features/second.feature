Feature: The shed

  Scenario: Tools are back
    When it rains

  Scenario Outline: Many tools
    When it rains

    Examples:
      | tool  |
      | rake  |
      | spade |
      | hoe   |
      | fork  |
