#!/bin/sh
# Debian's MariaDB as the store of Bell Crumb: set up at the first start, then served.
set -eu
: "${CRUMB_DB_PASSWORD:?set CRUMB_DB_PASSWORD}"
data=/var/lib/mysql
mkdir -p /run/mysqld
chown mysql:mysql /run/mysqld "$data"
if [ ! -d "$data/mysql" ]; then
  mariadb-install-db --no-defaults --user=mysql --datadir="$data" \
    --auth-root-authentication-method=socket --skip-test-db >/dev/null
fi
# What the application may do: its own database, from the network of the containers.
cat > /run/mysqld/init.sql <<SQL
CREATE DATABASE IF NOT EXISTS bellcrumb CHARACTER SET utf8mb4 COLLATE utf8mb4_uca1400_as_ci;
CREATE USER IF NOT EXISTS bellcrumb@'%' IDENTIFIED BY '${CRUMB_DB_PASSWORD}';
ALTER USER bellcrumb@'%' IDENTIFIED BY '${CRUMB_DB_PASSWORD}';
GRANT ALL ON bellcrumb.* TO bellcrumb@'%';
SQL
chown mysql /run/mysqld/init.sql
chmod 600 /run/mysqld/init.sql
exec mariadbd --no-defaults --user=mysql --datadir="$data" --socket=/run/mysqld/s --port=3306 \
  --bind-address=0.0.0.0 --init-file=/run/mysqld/init.sql --skip-name-resolve --skip-log-bin \
  --character-set-server=utf8mb4 --collation-server=utf8mb4_uca1400_as_ci \
  --transaction-isolation=READ-COMMITTED --innodb-buffer-pool-size="${CRUMB_BUFFER:-256M}"
