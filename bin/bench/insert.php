<?php

// What a page's report is measured against: a script that puts the same rows into the same tables, and asks nothing.
$db = new PDO(
    'mysql:unix_socket='.getenv('DB_SOCKET').';dbname='.getenv('DB_DATABASE').';charset=utf8mb4',
    getenv('DB_USERNAME'),
    getenv('DB_PASSWORD'),
    [PDO::ATTR_PERSISTENT => true, PDO::ATTR_ERRMODE => PDO::ERRMODE_EXCEPTION],
);
$report = json_decode((string) file_get_contents('php://input'), true);
$event = $report['events'][0];
$number = hexdec(substr(hash('sha256', $event['id']), 0, 15));
$at = str_replace(['T', 'Z'], [' ', ''], $event['at']);
$db->beginTransaction();
$db->prepare('insert into arrival_ids (collector_id, external_id, day) values (?, ?, date(?))')
    ->execute([$report['collector'], $number, $at]);
$db->prepare(
    'insert into arrivals (client_id, collector_id, external_id, at, kind, url, referrer, visitor) '
        ."values (?, ?, ?, ?, 'view', ?, ?, ?)",
)->execute([
    $report['client'],
    $report['collector'],
    $number,
    $at,
    $event['url'],
    $event['referrer'],
    $event['visitor'],
]);
$db->prepare('insert ignore into touched (collector_id, who, since) values (?, ?, ?)')
    ->execute([$report['collector'], "v{$event['visitor']}", $at]);
$db->commit();
http_response_code(202);
header('Content-Type: application/json');
echo '{"taken":1}';
