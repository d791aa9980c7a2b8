<?php

// What a short address is measured against: a script that answers 302 and knows but one place to lead to.
header('Cache-Control: no-store');
header('Location: https://velmar.example/islands/1?utm_source=letter&utm_medium=email', true, 302);
