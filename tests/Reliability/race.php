<?php

/*
 * One request of a person, in a process of its own: php race.php USER METHOD PATH BODY prints status and answer.
 */
require dirname(__DIR__, 2).'/vendor/autoload.php';

[, $user, $method, $path, $body] = $argv;
$app = require dirname(__DIR__, 2).'/bootstrap/app.php';
$kernel = $app->make(Illuminate\Contracts\Http\Kernel::class);
$kernel->bootstrap();
$request = Illuminate\Http\Request::create(
    $path,
    $method,
    server: ['CONTENT_TYPE' => 'application/json', 'HTTP_ACCEPT' => 'application/json'],
    content: $body,
);
$app->instance('request', $request);
$app['auth']->guard('web')->setUser(App\Models\User::query()->findOrFail((int) $user));
$response = $kernel->handle($request);
echo json_encode([
    'status' => $response->getStatusCode(),
    'answer' => json_decode((string) $response->getContent(), true),
]);
