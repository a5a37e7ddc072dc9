DROP TABLE IF EXISTS `discrepancy_key`;
