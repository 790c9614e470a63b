-- Nothing more is to be said about a remark: its student has got it, or a teacher says so. A new answer opens it again.
alter table remarks
  add column settled_at timestamptz,
  add column settled_by uuid references people on delete set null;
