-- A student says that a remark has been dealt with in what they hand in next; what is said about it comes along with that.
alter table remarks add column dealt_at timestamptz;
