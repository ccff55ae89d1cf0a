create or replace function told_setting() returns trigger language plpgsql as $$ begin
  perform tell('settings', array[coalesce(new.key, old.key)]);
  if coalesce(new.key, old.key) in ('site', 'site-former', 'style', 'shelf-looks', 'icons') then perform tell('site'); end if;
  return null;
end $$;
