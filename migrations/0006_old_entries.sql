-- What moved into `entry`. A program from before then cannot keep an entry and says so, instead of keeping it where nobody looks.
DROP TABLE IF EXISTS tap;
DROP TABLE IF EXISTS observation;
