-- Which websites may show a checkout in a frame: asked for each request, before anything else is known of it.

create function framing_sites(called text) returns table (sites text[])
  language sql stable security definer set search_path = public, pg_temp
  as $$
    select offers.sites from offers where public_id = called or address = called
    union all
    select offers.sites from orders join offers on offers.business_id = orders.business_id and offers.id = orders.offer_id
      where orders.token = called
    limit 1
  $$;
