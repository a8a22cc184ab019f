"""Lists of names: a spreadsheet comes in; rows that are asked, checked and priced one by one go out."""
